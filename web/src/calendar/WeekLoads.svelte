<script lang="ts">
  import type { Schemas } from '../api/client';
  import { many } from '../marks/words';

  /** How much is due in each week, a master above the other. */
  let {
    loads,
    masters,
  }: { loads: Schemas['LoadOfMaster'][]; masters: Schemas['MasterOfRibbon'][] } = $props();
  let some = $derived(loads.filter((l) => l.weeks.some((w) => w.due)));
  const code = (id: string) => masters.find((m) => m.id === id)?.code ?? '';
  const top = (l: Schemas['LoadOfMaster']) => Math.max(...l.weeks.map((w) => w.due));
  const day = (at: string) =>
    new Date(at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' });
</script>

{#each some as l (l.master)}
  <figure>
    <figcaption>
      <b>{code(l.master)}</b>
      {#if l.together.length}<span class="mind"
          >{many(l.together.length, 'item')} would fall on a day with another: {l.together
            .slice(0, 3)
            .join(', ')}{l.together.length > 3 ? ' …' : ''}</span
        >{/if}
    </figcaption>
    <ol aria-label="What is due in each week of {code(l.master)}">
      {#each l.weeks as w (w.monday)}
        <li title="Week of {day(w.monday)}: {w.due} due, {w.most} on one day at the most">
          <i style="height:{(28 * w.due) / top(l)}px" class:full={w.most > 2}></i>
          <span class="fig">{w.due || ''}</span>
          <span class="fig faint">{w.number ?? '–'}</span>
        </li>
      {/each}
    </ol>
  </figure>
{:else}
  <p class="quiet">Nothing is due in it.</p>
{/each}

<style>
  figure {
    margin: 4px 0;
  }
  ol {
    display: flex;
    gap: 2px;
    align-items: flex-end;
    height: 64px;
  }
  li {
    flex: 1;
    display: flex;
    flex-direction: column;
    align-items: center;
    justify-content: flex-end;
    font-size: 11px;
  }
  i {
    width: 70%;
    background: var(--calm);
  }
  .full {
    background: var(--mind-mark);
  }
  .mind {
    color: var(--mind);
    font-size: 13px;
  }
</style>
