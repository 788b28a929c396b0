<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Trouble from '../frame/Trouble.svelte';

  /** The tool links of one section at a host, one by one: opened in the shell, or tested. */
  let { section, host, tested }: { section: string; host: string; tested: () => void } = $props();
  let all = $state.raw<Schemas['LinkView'][]>([]);
  let said = $state<Record<string, string>>({});
  let trouble = $state.raw<unknown>(null);
  const outcomes = { OPENED: 'opened', REFUSED: 'refused', NO_ANSWER: 'no answer' };

  $effect(
    () =>
      void got(
        api.GET('/api/tools/sections/{section}/links', {
          params: { path: { section }, query: { host } },
        }),
      ).then(
        (l) => (all = l),
        (e) => (trouble = e),
      ),
  );

  async function test(item: string) {
    said = { ...said, [item]: 'Testing …' };
    try {
      const done = await got(
        api.POST('/api/tools/sections/{section}/links/test', {
          params: { path: { section } },
          body: { host, item },
        }),
      );
      const words = done.map(
        (t) =>
          `${t.role === 'INSTRUCTOR' ? 'instructor' : 'student'}: ${outcomes[t.outcome]}${t.said ? `, “${t.said}”` : ''}`,
      );
      said = { ...said, [item]: words.join('; ') };
      trouble = null;
      tested();
    } catch (e) {
      said = { ...said, [item]: '' };
      trouble = e;
    }
  }
</script>

{#if all.length}
  <h3>Each link</h3>
  <ul class="plain">
    {#each all as l (l.item)}
      <li>
        <span class="cut" title={l.leads}>{l.title}</span>
        <span class="acts">
          {#if l.at}<a class="link" href={l.at} target="_blank" rel="noreferrer">Open it</a>{/if}
          <button class="link" aria-label="Test {l.title}" onclick={() => test(l.item)}
            >Test it</button
          >
        </span>
        {#if said[l.item]}<span class="quiet said" role="status">{said[l.item]}</span>{/if}
      </li>
    {/each}
  </ul>
{/if}
<Trouble of={trouble} />

<style>
  h3 {
    font-size: 13px;
    padding-top: 8px;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 10px;
    padding: 3px 0;
    font-size: 13.5px;
  }
  .acts {
    display: flex;
    gap: 10px;
  }
  .said {
    grid-column: 1 / 3;
  }
</style>
