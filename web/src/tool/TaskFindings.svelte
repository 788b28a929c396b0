<script lang="ts">
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import { hand } from '../frame/hand.svelte';
  import { session } from '../frame/session.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { many } from '../marks/words';
  import { taskWords } from './tasks';

  /** Points and dates of a host's tasks: where shell and tool do not agree, and what mends it. */
  let { host, name }: { host: string; name: string } = $props();
  let all = $state.raw<Schemas['TasksOfTool'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let said = $state('');

  async function load() {
    const term = session.term?.id;
    if (!term) return;
    try {
      all = await got(api.GET('/api/tools/tasks', { params: { query: { term, host } } }));
    } catch (e) {
      trouble = e;
    }
  }
  $effect(() => void load());

  async function take(f: Schemas['TaskFinding']) {
    try {
      await got(
        api.POST('/api/tools/tasks/take', {
          body: {
            term: session.term!.id,
            host,
            master: f.master!,
            key: f.key!,
            differs: f.differs,
            there: f.there,
          },
        }),
      );
      said = `It is in the draft of ${f.code}; its next version brings it into all sections.`;
      trouble = null;
    } catch (e) {
      trouble = e;
    }
  }
</script>

{#if all?.tasks}
  <section aria-labelledby="tasks">
    <h2 id="tasks">Points and dates</h2>
    <p class="quiet">
      {many(all.tasks, 'task')} done in {name}; scores came back in {many(all.scored, 'section')}.
      {all.findings.length ? '' : 'Shells and tool agree.'}
    </p>
    <ul class="plain">
      {#each all.findings as f (f.differs + f.title + f.key + f.here + f.there)}
        {@const words = taskWords(f, name)}
        <li>
          <span><b>{f.title}</b>: {words.what}</span>
          <span class="quiet">{words.then}</span>
          <span class="acts">
            <button class="link" onclick={() => hand.only(f.sections)}
              >Take {many(f.sections.length, 'section')} in hand</button
            >
            {#if f.mend === 'INTO_DRAFT' && f.master}
              <Act onclick={() => take(f)}>Put {words.value} into the draft of {f.code}</Act>
            {/if}
          </span>
        </li>
      {/each}
    </ul>
    {#if said}<p role="status">{said}</p>{/if}
    <Trouble of={trouble} />
  </section>
{/if}

<style>
  li {
    display: grid;
    gap: 2px;
    padding: 6px 0;
    border-bottom: 1px solid var(--line-soft);
    font-size: 13.5px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 12px;
    align-items: center;
  }
</style>
