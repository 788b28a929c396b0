<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { hand } from '../frame/hand.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import { session } from '../frame/session.svelte';
  import { ago, figure, many } from '../marks/words';
  import CheckRows from './CheckRows.svelte';
  import CheckRules from './CheckRules.svelte';
  import FindingPane from './FindingPane.svelte';
  import ReadyTable from './ReadyTable.svelte';
  import RightList from './RightList.svelte';
  import { against, daysUntil, left, name, ready, type Board } from './checks';

  keyList.of = [
    ['Up, down', 'From finding to finding'],
    ['Enter', 'Open one beside the list'],
    ['Esc', 'Back'],
  ];
  let board = $state.raw<Board | null>(null);
  let trouble = $state.raw<unknown>(null);
  let reading = $state(0);
  let waits = $state(0);
  let timer: ReturnType<typeof setTimeout> | undefined;

  $effect(() => {
    const term = session.term?.id;
    void reading;
    if (!term) return;
    untrack(async () => {
      try {
        board = await got(api.GET('/api/checks', { params: { query: { term } } }));
        trouble = null;
      } catch (e) {
        trouble = e;
      }
    });
    return () => clearTimeout(timer);
  });
  let view = $derived(place.get('view'));
  let rows = $derived(board?.groups.flatMap((g) => g.rows) ?? []);
  let row = $derived(rows.find((r) => name(r) === place.get('of')));
  let all = $derived(row?.sections.map((n) => board!.sections[n].id) ?? []);
  let held = $derived(all.filter((id) => hand.has(id)));
  /** Those in hand, if any of them are; else all in which it is found. */
  let ids = $derived(held.length ? held : all);
  let isReady = $derived(board?.sections.filter(ready).length ?? 0);
  let never = $derived(board?.sections.filter((s) => !s.looked).length ?? 0);

  async function look() {
    const sections = board!.sections.map((s) => s.id);
    try {
      await got(api.POST('/api/deliveries/readings', { body: { sections } }));
      await wait(sections);
    } catch (e) {
      trouble = e;
    }
  }
  async function wait(sections: string[]) {
    const { sections: n } = await got(
      api.POST('/api/deliveries/readings/left', { body: { sections } }),
    );
    waits = n;
    if (!n)
      setTimeout(() => reading++, 2500); // what was read is looked at then
    else timer = setTimeout(() => void wait(sections), 2000);
  }
  const views = [
    ['', 'Findings'],
    ['ready', 'By course and campus'],
    ['right', 'Right as it is'],
    ['rules', 'What is checked'],
  ] as const;
</script>

<div class="page" class:wide={view !== ''}>
  <main class="left">
    <div class="head">
      <h1>
        {#if !board}Reading what was found …
        {:else}{figure(isReady)} of {many(board.sections.length, 'section')}
          {isReady === 1 ? 'is' : 'are'}
          {daysUntil(board.firstDay) < 0 ? 'as they should be' : 'ready for the first day'}{/if}
      </h1>
      {#if board}
        <span class="quiet cut">
          {[
            daysUntil(board.firstDay) < 0 ? '' : left(board.firstDay),
            board.lookedAt ? `looked at ${ago(board.lookedAt)}` : '',
            against(board.since),
            never ? `${figure(never)} never read` : '',
          ]
            .filter(Boolean)
            .join(' · ')}
        </span>
      {/if}
    </div>
    <nav class="views" aria-label="Views">
      {#each views as [v, words] (v)}
        <button class="tab" aria-pressed={view === v} onclick={() => place.set({ view: v, of: '' })}
          >{words}{v === 'right' && board?.rightHere ? ` ${figure(board.rightHere)}` : ''}</button
        >
      {/each}
    </nav>
    <Trouble of={trouble} />
    {#if board && view === 'ready'}<ReadyTable sections={board.sections} />
    {:else if view === 'right'}<RightList again={() => reading++} />
    {:else if board && view === 'rules'}<CheckRules groups={board.groups} />
    {:else if board && !board.lookedAt}
      <p class="quiet none">
        No shell of this term was looked at yet. Have them read: what is found stands here then, in
        the order in which one would look.
      </p>
    {:else if board}
      <CheckRows {board} chosen={row} choose={(r) => place.set({ of: name(r) })} />
    {:else if !trouble}<div class="skeleton tall" role="status" aria-label="Reading"></div>{/if}
  </main>
  {#if board && view === ''}
    <aside class="aside">
      {#if row}
        {#key name(row)}<FindingPane {board} {row} {ids} begun={() => reading++} />{/key}
      {:else}
        <section>
          <h2>What stands in the way</h2>
          <p class="quiet">
            In the order one would look: what is there, the front page, the tasks, the grade book,
            tools, dates, what students see, whether the shell is open. Choose a finding to see
            where it is and what mends it.
          </p>
        </section>
      {/if}
      <p class="legend quiet">
        Each stroke is a section. High and red: students would meet it. Half and amber: it is wrong.
        Low and grey: it can wait.
      </p>
    </aside>
  {/if}
</div>
<HandFrame
  title={hand.size ? many(hand.size, 'section') + ' in hand' : 'No section in hand'}
  words={waits
    ? `Reading ${many(waits, 'shell')} …`
    : row && held.length && held.length < all.length
      ? `${figure(held.length)} of those with this finding`
      : ''}
>
  {#if hand.size}<button class="link quiet" onclick={() => hand.drop()}>Put all back</button>{/if}
  {#if row}<Act onclick={() => hand.only(all)}>Take the {figure(all.length)} in hand</Act>{/if}
  {#if hand.size}<Act onclick={() => place.go('/deliveries/edit')}>Change in all …</Act>{/if}
  {#if board?.sections.length}<Act disabled={waits > 0} onclick={look}>Read shells again</Act>{/if}
</HandFrame>

<style>
  .page {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 348px;
  }
  .page.wide {
    grid-template-columns: minmax(0, 1fr);
  }
  .left {
    display: flex;
    flex-direction: column;
    min-height: 0;
    padding: 12px 0 0 16px;
  }
  .head {
    display: flex;
    align-items: baseline;
    gap: 14px;
    padding-right: 16px;
    min-width: 0;
  }
  h1 {
    white-space: nowrap;
  }
  .views {
    display: flex;
    gap: 16px;
    margin: 4px 0 8px;
  }
  aside {
    display: flex;
    flex-direction: column;
    gap: 12px;
    min-height: 0;
    overflow: auto;
    padding-bottom: 70px;
  }
  .legend {
    margin-top: auto;
    border-top: 1px solid var(--line);
    padding-top: 10px;
    font-size: 13px;
  }
  .none {
    padding: 24px 0;
    max-width: 60ch;
  }
</style>
