<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import { onEscape } from '../frame/escape.svelte';
  import { hand } from '../frame/hand.svelte';
  import { place } from '../frame/place.svelte';
  import { session } from '../frame/session.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { day, many } from '../marks/words';
  import HandOverPane from './HandOverPane.svelte';
  import { groups, whoWords, type HandOver } from './handovers';

  let all = $state.raw<HandOver[] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let said = $state('');
  let reading = $state(0);

  $effect(() => {
    const term = session.term?.id;
    void reading;
    if (!term) return;
    untrack(async () => {
      try {
        all = await got(api.GET('/api/hand-overs', { params: { query: { term } } }));
        trouble = null;
      } catch (e) {
        trouble = e;
      }
    });
  });

  let lines = $derived(groups(all ?? []));
  let line = $derived(lines.find((g) => g.id === place.get('of')));
  let chosen = $derived(line?.all.filter((h) => hand.has(h.section)) ?? []);
  let overdue = $derived(all?.filter((h) => h.overdue).length ?? 0);
  let mayWrite = $derived(session.me?.role !== 'DESIGNER');
  /** What was said stays until something else is in hand, not until the list is read again. */
  let about = $derived(`${line?.id} ${chosen.length}`);
  $effect(() => {
    void about;
    said = '';
  });

  onEscape(() => {
    if (!line) return false;
    place.set({ of: '' });
    return true;
  });

  async function remind() {
    if (!line) return;
    try {
      const { people } = await got(
        api.POST('/api/hand-overs/remind', {
          body: { kind: line.kind, host: line.host, sections: chosen.map((h) => h.section) },
        }),
      );
      reading++;
      said = people
        ? `Mail goes to ${many(people, 'person', 'people')}, with how it is done`
        : 'Nobody has a mail address, or they were written to today';
    } catch (e) {
      said = (e as Error).message;
    }
  }
</script>

<div class="page">
  <main class="left">
    <div class="head">
      <h1>
        {#if !all}Reading what waits for others …
        {:else if all.length}{many(all.length, 'hand-over')} {all.length === 1 ? 'waits' : 'wait'}
        {:else}Nothing waits for others{/if}
      </h1>
      {#if overdue}<span class="late">{overdue} overdue</span>{/if}
    </div>
    <Trouble of={trouble} />
    {#if lines.length}
      <table>
        <thead>
          <tr>
            <th>What</th><th>Whose</th><th class="n">Sections</th><th class="n">Overdue</th><th
              >Due</th
            ><th class="n">Reminded</th>
          </tr>
        </thead>
        <tbody>
          {#each lines as g (g.id)}
            <tr class:here={g.id === line?.id}>
              <td
                ><button
                  class="link"
                  aria-pressed={g.id === line?.id}
                  onclick={() => place.set({ of: g.id })}>{g.what}</button
                ></td
              >
              <td class="quiet">{whoWords[g.who]}</td>
              <td class="n fig">{g.all.length}</td>
              <td class="n fig" class:late={g.overdue}>{g.overdue || ''}</td>
              <td>{g.due ? day(g.due) : ''}</td>
              <td class="n fig">{g.reminded || ''}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    {:else if all}
      <p class="quiet none">
        When a shell is to be created or cleared, a tool opened, approved or switched on, it stands
        here until it is seen to be done.
      </p>
    {:else if !trouble}
      <div class="skeleton tall" role="status" aria-label="Reading"></div>
    {/if}
  </main>
  {#if all?.length}
    <HandOverPane {line} {chosen} begun={() => reading++} />
  {/if}
</div>
{#if line && chosen.length}
  <HandFrame
    title="{many(chosen.length, 'section')} in hand"
    words={said || `${line.what}: ${whoWords[line.who]}`}
  >
    <button class="link quiet" onclick={() => hand.drop()}>Put all back</button>
    {#if mayWrite}<Act main onclick={remind}>Remind of {many(chosen.length, 'section')}</Act>{/if}
  </HandFrame>
{:else if all?.length}
  <HandFrame
    title="No section in hand"
    words={line ? line.what : 'Choose what waits, then its sections'}
  >
    {#if line}
      {@const ids = line.all.map((h) => h.section)}
      <Act onclick={() => hand.only(ids)}>Take the {ids.length} in hand</Act>
    {/if}
  </HandFrame>
{/if}

<style>
  .page {
    display: grid;
    grid-template-columns: minmax(0, 1fr) var(--beside);
  }
  .left {
    min-height: 0;
    overflow: auto;
    padding: 12px 16px 70px;
  }
  .head {
    display: flex;
    align-items: baseline;
    gap: 14px;
    padding-bottom: 8px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th {
    text-align: left;
    font-weight: 500;
    color: var(--ink-2);
    font-size: 13px;
  }
  th,
  td {
    padding: 6px 10px 6px 0;
    border-bottom: 1px solid var(--line-soft);
  }
  .n {
    text-align: right;
  }
  .n + :not(.n) {
    padding-left: 24px;
  }
  tr.here td {
    background: var(--paper);
    box-shadow: inset 0 2px var(--do);
  }
  .late {
    color: var(--harm);
  }
  .none {
    padding: 24px 0;
    max-width: 60ch;
  }
</style>
