<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Trouble from '../frame/Trouble.svelte';
  import Tie from '../marks/Tie.svelte';
  import { reasonWords } from './tools';

  /** What an instructor has to open once before students can. */
  let all = $state.raw<Schemas['Opening'][]>([]);
  let trouble = $state.raw<unknown>(null);
  $effect(
    () =>
      void got(api.GET('/api/tools/openings/mine')).then(
        (o) => (all = o),
        (e) => (trouble = e),
      ),
  );
</script>

<Trouble of={trouble} />
{#if all.length}
  <section aria-labelledby="to-open">
    <h2 id="to-open">
      Please open {all.length === 1 ? 'this' : 'these'} once, so that students can
    </h2>
    <ul>
      {#each all as o (o.section + o.host)}
        <li>
          <Tie kind="open" size={16} />
          <b class="fig">{o.code}</b>
          {#if o.link}
            <a class="link" href={o.link} target="_blank" rel="noreferrer">Open {o.tool}</a>
          {:else}<span>{o.tool}, from the page of your section</span>{/if}
          <span class="quiet">
            {o.answers
              ? 'When it asks which course: a new copy, for this section alone.'
              : reasonWords[o.reason] + '.'}
          </span>
        </li>
      {/each}
    </ul>
  </section>
{/if}

<style>
  section {
    border: 1px solid var(--line);
    border-left: 3px solid var(--do);
    background: var(--paper);
    padding: 10px 12px;
    margin: 8px 0 14px;
  }
  ul {
    list-style: none;
    margin: 6px 0 0;
    padding: 0;
  }
  li {
    display: flex;
    gap: 10px;
    align-items: center;
    padding: 4px 0;
  }
</style>
