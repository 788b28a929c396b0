<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got, type Schemas } from '../api/client';
  import Standing from '../marks/Standing.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { hand } from '../frame/hand.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { place } from '../frame/place.svelte';
  import { session } from '../frame/session.svelte';
  import { many } from '../marks/words';
  import Beside from './Beside.svelte';
  import Grid from './Grid.svelte';
  import HandBar from './HandBar.svelte';
  import NothingYet from './NothingYet.svelte';
  import Spread from './Spread.svelte';
  import KeepSet from './KeepSet.svelte';
  import { among, sets } from './sets.svelte';
  import { is, passing, stands, states, stateWords, tally, type State } from './model';

  let coverage = $state.raw<Schemas['Coverage'] | null>(null);
  let trouble = $state.raw<unknown>(null);
  let reading = $state(0);

  keyList.of = [
    ['arrows', 'From mark to mark'],
    ['Space', 'Take a section in hand'],
    ['Enter', 'Open the section beside'],
  ];

  $effect(() => {
    const term = session.term?.id;
    void reading;
    if (!term) return;
    untrack(async () => {
      try {
        coverage = await got(api.GET('/api/coverage', { params: { query: { term } } }));
        trouble = null;
      } catch (e) {
        trouble = e;
      }
    });
  });

  // Each by itself: what does not change is not gone through again.
  let text = $derived(place.get('find'));
  let course = $derived(place.get('course'));
  let campus = $derived(place.get('campus'));
  let instructor = $derived(place.get('instructor'));
  let show = $derived(states.find((s) => s === place.get('show')) as State | undefined);
  let grid = $derived(place.get('view') === 'grid');
  let all = $derived(coverage ? stands(coverage) : []);
  /** Before the first sections and versions there is nothing to filter. */
  let any = $derived(coverage ? all.length > 0 : !session.termsKnown || session.terms.length > 0);
  /** Empty only where the server has said so. */
  let waiting = $derived(!coverage && (!session.termsKnown || session.terms.length > 0));
  let filter = $derived({ text, course, campus, instructor });
  let set = $derived(place.get('set'));
  let setSections = $state.raw<string[] | null>(null);
  let said = $state('');
  $effect(() => {
    setSections = null;
    if (set)
      void sets.sections(set).then(
        (ids) => (setSections = ids),
        (e) => (trouble = e),
      );
  });
  $effect(() => {
    if (session.term) void sets.load().catch((e) => (trouble = e));
  });
  let inSet = $derived(setSections ? among(all, setSections) : all);
  let narrowed = $derived(passing(inSet, filter));
  let counts = $derived(tally(narrowed));
  let shown = $derived(narrowed.filter((s) => !show || is(s, show)));
  let sections = $derived(new Set(narrowed.map((s) => s.section)).size);
  let urgent = $derived.by(() => {
    const by = new Map(coverage?.masters.map((m) => [m, 0]));
    for (const s of all)
      if (!s.master.everySection)
        by.set(s.master, (by.get(s.master) ?? 0) + (s.needsPerson ? 1000 : s.behind ? 1 : 0));
    return [...by].sort((a, b) => b[1] - a[1])[0]?.[0];
  });
  let master = $derived(coverage?.masters.find((m) => m.id === place.get('master')) ?? urgent);
  let chosen = $derived(all.filter((s) => s.master === master && hand.has(s.section.id)));
  let campuses = $derived([...new Set(coverage?.sections.map((s) => s.campus))].sort());
  let courses = $derived([...new Set(coverage?.sections.map((s) => s.course))].sort());
  let instructors = $derived(
    [...new Set(coverage?.sections.flatMap((s) => s.instructors.split(', ')))]
      .filter(Boolean)
      .sort(),
  );
  const marks: Record<State, object> = {
    step: {},
    behind: { behind: 2 },
    changed: { changed: true },
    partial: { share: 0.5 },
    never: { never: true },
    person: { failed: true },
  };
</script>

{#snippet nothingYet()}
  <NothingYet
    sections={coverage?.sections.length ?? 0}
    shells={coverage?.sections.filter((s) => s.shell).length ?? 0}
    masters={coverage?.masters.length ?? 0}
  />
{/snippet}

<div class="page">
  <main class="left">
    <div class="head">
      {#if waiting}
        <h1>Reading the ledger …</h1>
      {:else if counts.behind}
        <h1>
          {counts.behind} of {many(sections, 'section')}
          {counts.behind === 1 ? 'is' : 'are'} behind
        </h1>
      {:else if counts.never}
        <h1>
          {counts.never} of {many(sections, 'section')} never received a master
        </h1>
      {:else if all.length}
        <h1>{many(sections, 'section')}, all in step</h1>
      {:else}
        <h1>Coverage</h1>
      {/if}
      {#if any}
        <div class="filters">
          <input
            class="entry find"
            type="search"
            placeholder="Find a section"
            aria-label="Find a section"
            value={text}
            oninput={(e) => place.set({ find: e.currentTarget.value })}
          />
          {#each [['course', 'All courses', 'Course', courses], ['campus', 'All campuses', 'Campus', campuses], ['instructor', 'All instructors', 'Instructor', instructors]] as const as [name, none, short, options] (name)}
            <select
              class="entry"
              aria-label={none}
              value={place.get(name)}
              onchange={(e) => place.set({ [name]: e.currentTarget.value })}
            >
              <option value="">{short}</option>
              {#each options as o (o)}<option>{o}</option>{/each}
            </select>
          {/each}
          <select
            class="entry"
            aria-label="Section set"
            value={set}
            onchange={(e) => place.set({ set: e.currentTarget.value })}
          >
            <option value="">Set</option>
            {#each sets.all as s (s.id)}<option value={s.id}>{s.name}</option>{/each}
          </select>
        </div>
        <div class="views" role="group" aria-label="View">
          <button class="tab" aria-pressed={!grid} onclick={() => place.set({ view: '' })}
            >Spread</button
          >
          <button class="tab" aria-pressed={grid} onclick={() => place.set({ view: 'grid' })}
            >Grid</button
          >
        </div>
      {/if}
    </div>
    {#if any}
      <div class="sum" role="group" aria-label="Show only">
        {#each states as s (s)}
          <button
            class="tab"
            aria-pressed={show === s}
            onclick={() => place.set({ show: show === s ? '' : s })}
          >
            <Standing size={17} {...marks[s]} /><b class="fig">{counts[s]}</b>{stateWords[s]}
          </button>
        {/each}
        <span class="more">
          {#if text || course || campus || instructor}
            <KeepSet what={() => ({ filter })} words="Keep as a set" told={(s) => (said = s)} />
          {/if}
          {#if said}<span class="quiet" role="status">{said}</span>{/if}
        </span>
      </div>
    {/if}
    <Trouble of={trouble} />
    {#if coverage?.unread.length}
      <p class="unread">
        {many(coverage.unread.length, 'shell')} cannot be read in full:
        {#each coverage.unread.slice(0, 5).map((n) => coverage!.sections[n]!) as s, n (s.id)}{n
            ? ', '
            : ''}<a class="link fig" href="/sections/{s.id}">{s.code}</a>{/each}{coverage.unread
          .length > 5
          ? ` and ${coverage.unread.length - 5} more`
          : ''}. <a class="link" href="/checks">See why</a>
      </p>
    {/if}
    {#if coverage && !coverage.masters.some((m) => m.versions.length)}
      {@render nothingYet()}
    {:else if coverage && all.length && grid}
      <Grid stands={shown} masters={coverage.masters} {master} />
    {:else if coverage && all.length}
      <Spread stands={shown} masters={coverage.masters} {master} />
      {#if !shown.length}<p class="quiet none">No section is like this. Take a filter away.</p>{/if}
    {:else if !waiting}
      {@render nothingYet()}
    {:else if !trouble}
      <div class="skeleton tall" role="status" aria-label="Reading the ledger"></div>
    {/if}
  </main>
  {#if coverage && all.length}
    <Beside {chosen} {master} stands={all} />
  {/if}
</div>
{#if coverage && all.length}
  <HandBar {chosen} {master} {coverage} stands={all} again={() => reading++} />
{/if}

<style>
  .page {
    display: grid;
    grid-template-columns: minmax(0, 1fr) var(--beside);
  }
  .left {
    display: flex;
    flex-direction: column;
    min-height: 0;
    padding: 12px 0 0 16px;
  }
  .head {
    display: flex;
    align-items: center;
    gap: 14px;
    padding-right: 16px;
  }
  h1 {
    white-space: nowrap;
  }
  .filters {
    margin-left: auto;
    display: flex;
    gap: 6px;
    min-width: 0;
  }
  .filters :global(.entry) {
    min-height: 26px;
    padding-top: 1px;
    padding-bottom: 1px;
    font-size: 13px;
    min-width: 0;
    max-width: 124px;
  }
  .filters :global(select.entry) {
    min-width: 88px; /* its name is to be read whole */
  }
  .unread {
    margin: 0 16px 8px 0;
  }
  .views {
    display: flex;
    gap: 12px;
  }
  .sum {
    display: flex;
    gap: 20px;
    align-items: center;
    margin: 6px 0 8px;
  }
  .sum .tab {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .more {
    margin-left: auto;
    padding-right: 16px;
    display: flex;
    gap: 14px;
    align-items: center;
    font-size: 13px;
  }
  .sum b {
    color: var(--ink);
  }
  @media (max-width: 1180px) {
    .head {
      flex-wrap: wrap;
      gap: 6px 14px;
    }
    .views {
      margin-left: auto;
    }
    .filters {
      order: 3;
      width: 100%;
    }
    .sum {
      gap: 12px;
      flex-wrap: wrap;
    }
  }
  .none {
    padding: 24px 0;
  }
</style>
