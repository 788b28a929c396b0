<script lang="ts">
  import { hand } from '../frame/hand.svelte';
  import { session } from '../frame/session.svelte';
  import When from '../frame/When.svelte';
  import { day } from '../marks/words';
  import HandOverSet from './HandOverSet.svelte';
  import StepsForm from './StepsForm.svelte';
  import { whoWords, type Group, type HandOver } from './handovers';

  /** One kind of hand-over beside the list: how it is done, and each of its sections. */
  let { line, chosen, begun }: { line?: Group; chosen: HandOver[]; begun: () => void } = $props();
  let mayWrite = $derived(session.me?.role !== 'DESIGNER');
</script>

<aside class="aside">
  {#if line}
    <section>
      <h2>{line.what}</h2>
      {#key line.id}<StepsForm {line} {mayWrite} {begun} />{/key}
    </section>
    {#if chosen.length && mayWrite}
      <section>
        {#key line.id + chosen.map((h) => h.section).join()}
          <HandOverSet {line} {chosen} {begun} />
        {/key}
      </section>
    {/if}
    <section>
      <h2>Sections</h2>
      <ul class="plain">
        {#each line.all as h (h.section)}
          <li>
            <label
              ><input
                type="checkbox"
                checked={hand.has(h.section)}
                onchange={() => hand.toggle(h.section)}
              /><b class="fig">{h.code}</b>
              <span class="quiet cut">{h.owner || h.instructors || whoWords[h.who]}</span></label
            >
            <span class="more" class:late={h.overdue}>
              {h.due ? (h.overdue ? 'was due ' : 'due ') + day(h.due) : ''}
              {#if h.reminded}<span class="quiet">reminded <When at={h.reminded} /></span>{/if}
              {#if h.link}<a class="link" href={h.link} target="_blank" rel="noreferrer">Open it</a
                >{/if}
            </span>
            {#if h.note}<span class="note">{h.note}</span>{/if}
          </li>
        {/each}
      </ul>
    </section>
  {:else}
    <section>
      <h2>What waits for others</h2>
      <p class="quiet">
        Each line ends by itself when it is seen to be done. Choose one to see its sections, to say
        how it is done here, and to remind whoever has to do it.
      </p>
    </section>
  {/if}
</aside>

<style>
  aside {
    display: flex;
    flex-direction: column;
    gap: 14px;
    overflow: auto;
    padding-bottom: 70px;
  }
  li {
    padding: 4px 0;
    border-bottom: 1px solid var(--line-soft);
    display: grid;
  }
  label {
    display: flex;
    gap: 8px;
    align-items: baseline;
    min-width: 0;
  }
  .more {
    display: flex;
    gap: 10px;
    padding-left: 21px;
    font-size: 13px;
    color: var(--ink-2);
  }
  .late {
    color: var(--harm);
  }
  .note {
    padding-left: 21px;
    font-size: 13px;
    overflow-wrap: anywhere;
  }
</style>
