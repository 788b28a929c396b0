<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import { onEscape } from '../frame/escape.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import { along } from '../lists/along';
  import StepMark from '../marks/StepMark.svelte';
  import { many } from '../marks/words';
  import MergeHead from './MergeHead.svelte';
  import MergeSides from './MergeSides.svelte';
  import Threads from './Threads.svelte';
  import { OpenMerge, type Change } from './merge.svelte';
  import { does, marks } from './mergeWords';

  /** A newer edition of the cartridge that a master was built from. */
  let { id }: { id: string } = $props();
  const [masterId, editionId] = untrack(() => id.split('/'));
  const work = new OpenMerge(masterId, editionId);
  const height = 29;
  let master = $state.raw<Schemas['MasterView'] | null>(null);
  let edition = $state.raw<Schemas['Edition'] | null>(null);
  let older = $state.raw<Schemas['Edition'] | null>(null);
  $effect(() => {
    const id = work.view?.olderEdition;
    if (!id) return;
    void got(api.GET('/api/cartridges/editions/{id}', { params: { path: { id } } })).then(
      (e) => (older = e),
      (e) => (work.trouble = e),
    );
  });
  let scroll = $state<HTMLElement>();
  let top = $state(0);
  let room = $state(600);
  keyList.of = [
    ['up, down, Page up, Page down', 'From item to item'],
    ['n', 'Next to decide'],
    ['Space', 'Take this change, or leave it'],
  ];

  $effect(() => {
    void work.load();
    void got(api.GET('/api/masters/{id}', { params: { path: { id: masterId } } })).then(
      (m) => (master = m),
      (e) => (work.trouble = e),
    );
    void got(
      api.GET('/api/cartridges/editions/{id}', { params: { path: { id: editionId } } }),
    ).then(
      (e) => (edition = e),
      (e) => (work.trouble = e),
    );
  });

  let selected = $derived(work.changes.find((c) => c.key === place.get('item')));
  let rows = $derived(Math.max(work.older.length, work.newer.length));
  let from = $derived(Math.max(0, Math.floor(top / height) - 8));
  let to = $derived(Math.ceil((top + room) / height) + 8);
  let olderSeen = $derived(work.older.slice(from, to));
  let newer = $derived(work.newer.slice(from, to));
  const words = (c: Change) => does(c, work.sides.get(c.key));
  const openChange = (c: Change) => ['TAKE', 'ADD', 'RETIRE', 'CLASH'].includes(c.what);

  function select(c: Change | undefined) {
    if (!c) return;
    place.set({ item: c.key });
    const at = c.newer ? work.newerAt.get(c.newer) : work.olderAt.get(c.older!);
    if (!scroll || at === undefined) return;
    if (at * height < scroll.scrollTop) scroll.scrollTop = at * height;
    else if ((at + 1) * height > scroll.scrollTop + room)
      scroll.scrollTop = (at + 1) * height - room;
  }

  /** The box takes a change or leaves it; anywhere else looks at it. */
  function picked(e: MouseEvent, c: Change | undefined) {
    if (c && (e.target as Element).closest('.box')) work.choose(c, work.left.has(c.key));
    else select(c);
  }

  function next() {
    const all = work.undecided;
    const at = all.findIndex((c) => c.key === selected?.key);
    select(all[(at + 1) % all.length]);
  }

  function keys(e: KeyboardEvent) {
    const at = selected?.newer ? (work.newerAt.get(selected.newer) ?? -1) : -1;
    const to = along(e.key, at, work.newer.length, Math.floor(room / height) - 1);
    if (to !== undefined) {
      const line = work.newer[to];
      if (line) select(work.byNewer.get(line.node.key));
    } else if (e.key === 'n') next();
    else if (e.key === ' ' && selected && openChange(selected))
      work.choose(selected, work.left.has(selected.key));
    else return;
    e.preventDefault();
  }

  onEscape(() => {
    if (!place.get('item')) return false;
    place.set({ item: '' });
    return true;
  });

  let name = $derived(edition ? `edition ${edition.number}` : 'the new edition');
</script>

<div class="page">
  <div class="work">
    <MergeHead {work} {edition} {master} />
    <div class="heads quiet">
      <span>Edition {older?.number}</span>
      <span></span>
      <span>Edition {edition?.number}</span>
      <span>In {master?.code}</span>
    </div>
    <div
      class="lists"
      role="listbox"
      aria-label="What the new edition does to the master"
      aria-activedescendant={selected ? 'change-' + selected.key : undefined}
      tabindex="0"
      bind:this={scroll}
      bind:clientHeight={room}
      onscroll={(e) => (top = e.currentTarget.scrollTop)}
      onkeydown={keys}
    >
      <div class="all" role="presentation" style="height:{rows * height}px">
        <div class="col" role="presentation">
          {#each olderSeen as l (l.node.key)}
            {@const c = work.byOlder.get(l.node.key)}
            {@const gone = c && !c.newer}
            <div
              class="row"
              class:m={l.node.kind === 'MODULE'}
              class:at={c && c.key === selected?.key}
              id={gone ? 'change-' + c.key : undefined}
              role={gone ? 'option' : 'presentation'}
              aria-selected={gone ? c.key === selected?.key : undefined}
              style="top:{l.at * height}px;padding-left:{l.depth * 14}px"
              onclick={() => select(c)}
            >
              {#if gone}<StepMark kind={marks[c.what]} />{/if}
              <span class="cut" class:gone>{l.node.title}</span>
              {#if gone && c.what === 'STAYS'}<span class="quiet cut">{words(c)}</span>{/if}
            </div>
          {/each}
        </div>
        <div class="threads" role="presentation">
          <Threads
            pairs={work.view?.pairs ?? []}
            olderAt={work.olderAt}
            newerAt={work.newerAt}
            {from}
            {to}
            {height}
            selected={selected?.newer}
          />
        </div>
        <div class="col" role="presentation">
          {#each newer as l (l.node.key)}
            {@const c = work.byNewer.get(l.node.key)}
            <!-- svelte-ignore a11y_click_events_have_key_events -->
            <div
              class="row new"
              class:m={l.node.kind === 'MODULE'}
              class:at={c && c.key === selected?.key}
              id={c ? 'change-' + c.key : undefined}
              role="option"
              tabindex="-1"
              aria-selected={c?.key === selected?.key}
              style="top:{l.at * height}px"
              onclick={(e) => picked(e, c)}
            >
              <span class="cut" style="padding-left:{l.depth * 14}px">{l.node.title}</span>
              <span class="does cut">
                {#if c && openChange(c)}
                  <span class="box" class:on={!work.left.has(c.key)} aria-hidden="true"></span>
                {/if}
                {#if c}
                  <StepMark kind={work.sides.has(c.key) ? 'UPDATE' : marks[c.what]} />
                  <span class="quiet cut" class:left={work.left.has(c.key)}>{words(c)}</span>
                {/if}
              </span>
            </div>
          {/each}
        </div>
      </div>
    </div>
  </div>
  <aside aria-label="The item">
    {#if selected}
      {#key selected.key}
        <MergeSides {work} change={selected} {name} code={master?.code ?? 'ours'} />
      {/key}
    {:else}
      <p class="quiet">
        A thread joins what is the same thing in both editions; where it is dashed, we ask. Crossing
        threads moved. Choose an item to see both sides of it.
      </p>
      <p class="quiet">
        Nothing of one’s own is lost: what only {master?.code ?? 'the master'} changed stays. Decisions
        on pairs are remembered for every master that is built on the same edition.
      </p>
    {/if}
  </aside>
</div>
<HandFrame
  title={work.taken ? `${many(work.taken, 'change')} taken into the draft` : 'Nothing is taken yet'}
  words={work.view
    ? `${many(work.ready.length, 'change')} for the draft · ${many(work.undecided.length, 'thing')} to decide · frozen versions stay as they are`
    : ''}
>
  {#if work.taken}<Act onclick={() => void work.undo()}>Undo</Act>{/if}
  {#if work.undecided.length}<Act onclick={next}>Next to decide</Act>{/if}
  {#if work.view && !work.ready.length && !work.undecided.length}
    <Act
      main
      disabled={work.busy}
      onclick={async () => (await work.finish()) || place.go('/sources/masters/' + masterId)}
      >Build {master?.code} on {name} from now on</Act
    >
  {:else}
    <Act main disabled={!work.ready.length || work.busy} onclick={() => void work.take()}
      >Take {many(work.ready.length, 'change')} into the draft</Act
    >
  {/if}
</HandFrame>

<style>
  .page {
    display: grid;
    grid-template-columns: minmax(0, 1fr) var(--beside-wide);
    min-height: 0;
  }
  .work {
    display: grid;
    grid-template-rows: auto auto minmax(0, 1fr);
    min-height: 0;
    min-width: 0;
  }
  .heads,
  .all {
    display: grid;
    grid-template-columns: minmax(0, 0.9fr) 104px minmax(0, 1.4fr);
  }
  .heads {
    grid-template-columns: minmax(0, 0.9fr) 104px minmax(0, 0.8fr) minmax(0, 0.6fr);
    padding: 6px 16px;
    border-bottom: 1px solid var(--line);
  }
  .lists {
    overflow-y: auto;
    overflow-x: hidden;
    padding: 0 16px;
    position: relative;
  }
  .lists:focus-visible {
    outline: 2px solid var(--do);
    outline-offset: -2px;
  }
  .all {
    position: relative;
  }
  .col {
    position: relative;
    min-width: 0;
  }
  .row {
    position: absolute;
    left: 0;
    right: 0;
    height: 29px;
    display: flex;
    gap: 6px;
    align-items: center;
    cursor: default;
    white-space: nowrap;
  }
  .row.new {
    display: grid;
    grid-template-columns: minmax(0, 0.8fr) minmax(0, 0.6fr);
  }
  .row.m {
    font-weight: 650;
  }
  .row.at {
    background: var(--do-soft);
  }
  .gone {
    color: var(--ink-3);
  }
  .does {
    display: flex;
    gap: 6px;
    align-items: center;
    font-weight: 400;
  }
  .left {
    text-decoration: line-through;
  }
  aside {
    background: var(--paper);
    border-left: 1px solid var(--line);
    padding: 16px;
    overflow: auto;
    display: grid;
    gap: 12px;
    align-content: start;
    min-height: 0;
  }
</style>
