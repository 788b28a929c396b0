<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Tie from '../marks/Tie.svelte';
  import { session } from '../frame/session.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { many } from '../marks/words';
  import { reasonWords, tieOf } from './tools';

  /** Tools of one section: what works, and what the others wait for. */
  let { section }: { section: string } = $props();
  let all = $state.raw<Schemas['SectionToolView'][]>([]);
  let trouble = $state.raw<unknown>(null);
  $effect(
    () =>
      void got(api.GET('/api/tools/sections/{section}', { params: { path: { section } } })).then(
        (t) => (all = t.tools),
        (e) => (trouble = e),
      ),
  );
</script>

<Trouble of={trouble} />
{#if all.length}
  <ul aria-label="Tools">
    {#each all as t (t.host)}
      <li>
        <Tie kind={tieOf[t.standing]} size={16} />
        {#if session.coordinates}<a class="link" href="/tools?host={t.host}&at={section}"
            >{t.name}</a
          >{:else}<b>{t.name}</b>{/if}
        <span class="quiet">{many(t.links, 'link')}, {reasonWords[t.reason]}</span>
      </li>
    {/each}
  </ul>
{/if}

<style>
  ul {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 20px;
    list-style: none;
    padding: 4px 0 0;
    font-size: 13px;
  }
  li {
    display: flex;
    gap: 6px;
    align-items: center;
  }
</style>
