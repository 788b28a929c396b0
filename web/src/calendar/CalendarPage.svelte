<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got, type Schemas } from '../api/client';
  import Act from '../frame/Act.svelte';
  import HandFrame from '../frame/HandFrame.svelte';
  import { hand } from '../frame/hand.svelte';
  import { keyList } from '../frame/keys.svelte';
  import { onEscape } from '../frame/escape.svelte';
  import { place } from '../frame/place.svelte';
  import { session } from '../frame/session.svelte';
  import Trouble from '../frame/Trouble.svelte';
  import { figure, many } from '../marks/words';
  import CalendarForm from './CalendarForm.svelte';
  import CalendarLists from './CalendarLists.svelte';
  import CalendarMark from './CalendarMark.svelte';
  import DayPane from './DayPane.svelte';
  import MasterDates from './MasterDates.svelte';
  import MeetForm from './MeetForm.svelte';
  import RibbonRows from './RibbonRows.svelte';
  import {
    dayOf,
    isoOf,
    monday,
    movedBy,
    next,
    realDates,
    ribbon,
    sorts,
    sortWords,
    type At,
    type Picture,
    type Sort,
  } from './ribbon';

  let p = $state.raw<Picture>();
  let trouble = $state.raw<unknown>();
  let reading = $state(0);
  /** How each move made here is taken back, the last one last. */
  let undos = $state.raw<(() => Promise<unknown>)[][]>([]);

  keyList.of = [
    ['← →', 'From day to day'],
    ['[ ]', 'By a week'],
    ['↑ ↓', 'From line to line'],
    ['Shift + ← →', 'Move what is due by a day'],
    ['Shift + [ ]', 'Move it by a week'],
    ['n', 'The next that wants a look'],
    ['Space', 'Take the sections of a line in hand'],
  ];

  $effect(() => {
    const term = session.term?.id;
    void reading;
    if (term) untrack(() => void read(term));
  });

  async function read(term: string) {
    try {
      p = await got(api.GET('/api/calendars/ribbon', { params: { query: { term } } }));
      trouble = undefined;
    } catch (e) {
      trouble = e;
    }
  }

  let only = $derived(sorts.find((s) => s === place.get('only')));
  let text = $derived(place.get('find'));
  let r = $derived(p ? ribbon(p, only, text) : undefined);
  let line = $derived(Math.max(0, r?.bands.findIndex((b) => b.key === place.get('line')) ?? 0));
  let day = $derived(place.get('day') ? dayOf(place.get('day')) : (r?.from ?? 0));
  let week = $derived(place.get('week') === '1');
  let band = $derived(r?.bands[line]);
  let from = $derived(week ? monday(day) : day);
  let shown = $derived.by(() => {
    const all: At[] = [];
    for (let d = from; d < from + (week ? 7 : 1); d++) all.push(...(band?.byDay.get(d) ?? []));
    return all;
  });
  let calendar = $derived(p?.calendars.find((c) => c.id === place.get('calendar')));
  let whole = $derived(p?.calendars.find((c) => c.whole));
  let master = $derived(p?.masters.find((m) => m.id === place.get('master')));
  let mine = $derived(new Set(p?.rows.flatMap((x) => x.sections)));
  let inHand = $derived([...hand.sections].filter((s) => mine.has(s)));
  let may = $derived(session.me?.role !== 'DESIGNER');
  let opened = $derived(Boolean(calendar || place.get('part') || place.get('meet') || master));
  let parts = $derived((p?.calendars ?? []).filter((c) => !c.whole));
  /** Masters that the sections in hand, or else of the line, have dates of. */
  let planned = $derived.by(() => {
    const of = new Set(inHand.length ? inHand : []);
    const ids = new Set(
      p?.rows
        .filter((x) => x.sections.some((s) => of.has(s)))
        .flatMap((x) => x.dates.map((d) => d.master)),
    );
    return p?.masters.filter((m) => ids.has(m.id)) ?? [];
  });

  /** Sections in hand; else those that go by a calendar, or all. */
  const going = (id?: string) =>
    inHand.length
      ? inHand
      : (p?.rows.filter((x) => !id || x.calendar === id).flatMap((x) => x.sections) ?? []);

  function go(to: number, at: number) {
    const b = r!.bands[to];
    place.set({ line: b.key, day: isoOf(at), ...shut });
  }
  const shut = { calendar: '', part: '', meet: '', master: '' };
  /** What was entered is read before its form goes, so that the next begins with it. */
  async function close() {
    await read(session.term!.id);
    place.set(shut);
  }
  function take(i: number) {
    hand.only(r!.bands[i].sections);
  }
  /** In the drafts of their masters, or for the sections in hand alone. */
  async function move(items: At[], days: number, alone = false) {
    if (!items.length) return;
    try {
      const back: (() => Promise<unknown>)[] = [];
      for (const [id, of] of movedBy(items)) {
        if (alone) back.push(await set(id, items, days));
        else back.push(await draft(id, of, days));
      }
      undos = [...undos, back];
      place.set({ day: isoOf(day + days) });
      reading++;
    } catch (e) {
      trouble = e;
    }
  }
  async function draft(id: string, items: string[], days: number) {
    const params = { path: { id } };
    await got(api.POST('/api/masters/{id}/dates/move', { params, body: { items, days } }));
    return () => got(api.POST('/api/masters/{id}/draft/undo', { params }));
  }
  async function set(master: string, items: At[], days: number) {
    const of = items.filter((a) => a.due.master === master);
    const sections = inHand.filter((s) => of.some((a) => a.row.sections.includes(s)));
    const dates = of.map((a) => ({
      item: a.due.item,
      point: 'DUE' as const,
      at: isoOf(dayOf(a.due.due) + days) + a.due.due.slice(10, 16),
      byPattern: false,
    }));
    const put = (some: Schemas['SetDate'][]) =>
      got(api.PUT('/api/calendars/dates', { body: { master, sections, dates: some } }));
    await put(dates);
    return () => put(dates.map(({ item, point }) => ({ item, point, byPattern: true })));
  }
  async function undo() {
    try {
      for (const back of undos.at(-1) ?? []) await back();
      undos = undos.slice(0, -1);
      reading++;
    } catch (e) {
      trouble = e;
    }
  }
  function look() {
    const to = r && next(r, line, day);
    if (to) go(to.band, to.day);
  }
  async function goBy(id: string) {
    try {
      await got(
        api.PUT('/api/calendars/{calendar}/sections', {
          params: { path: { calendar: id } },
          body: { sections: inHand },
        }),
      );
      reading++;
    } catch (e) {
      trouble = e;
    }
  }
  /** Of the line, unless it is that of all sections. */
  let course = $derived(
    line > 0 || r?.bands.length === 1
      ? band?.byDay.values().next().value?.[0]?.row.course
      : undefined,
  );
  onEscape(() => {
    if (!opened) return false;
    place.set(shut);
    return true;
  });
  let counted = $derived(whole?.says.weeks === 'TEACHING' ? 'teaching weeks' : 'calendar weeks');
</script>

<div class="page">
  <main class="left">
    <div class="head">
      <h1>
        {#if !r}Reading the dates of the term …
        {:else if r.dates}{session.term?.title}: {figure(r.dates)} dates, {r.looks
            ? many(r.looks, 'item wants', 'items want') + ' a look'
            : 'all as the patterns say'}
        {:else}Calendar of {session.term?.title}{/if}
      </h1>
      {#if p && r}
        <span class="quiet">
          {[many(p.calendars.length, 'calendar'), many(mine.size, 'section'), counted].join(' · ')}
        </span>
      {/if}
      <input
        class="entry find"
        type="search"
        placeholder="Course or item"
        aria-label="Find a course or an item"
        value={text}
        oninput={(e) => place.set({ find: e.currentTarget.value })}
      />
    </div>
    {#if r?.dates}
      <div class="sum">
        {#each sorts as s (s)}
          <button
            class="sort"
            aria-pressed={only === s}
            onclick={() => place.set({ only: only === s ? '' : s })}
            ><CalendarMark sort={s as Sort} /><b class="fig">{figure(r.counts[s])}</b>{sortWords[
              s
            ]}</button
          >
        {/each}
        {#if p?.undated}<span class="quiet">{figure(p.undated)} without a date</span>{/if}
      </div>
    {/if}
    <Trouble of={trouble} />
    {#if r?.bands.length}
      <RibbonRows {r} band={line} {day} {go} {take} move={(days) => move(shown, days)} {look} />
    {:else if r && text}
      <p class="quiet none">Nothing is called so. Take the search away.</p>
    {:else if r}
      <p class="quiet none">
        No section of this term is to get anything with a date yet. Give items of a master a due
        time such as <span class="fig">week 5 Mon 23:59</span>, or
        <a class="link" href="/sources">look at the sources</a>.
      </p>
    {:else if !trouble}
      <div class="skeleton tall" role="status" aria-label="Reading"></div>
    {/if}
  </main>
  <aside class="beside" aria-label="Beside">
    {#if p && calendar}
      {#key calendar.id}
        <CalendarForm
          {calendar}
          {whole}
          masters={p.masters}
          sections={going(calendar.id)}
          done={close}
        />
      {/key}
    {:else if p && place.get('part')}
      <CalendarForm {whole} masters={p.masters} sections={going()} done={close} />
    {:else if place.get('meet')}
      <MeetForm sections={inHand} done={close} />
    {:else if p && master}
      {#key master.id}<MasterDates {master} real={realDates(p, master.id)} done={close} />{/key}
    {:else if p && r && band && place.get('day')}
      <DayPane
        {p}
        {band}
        {from}
        days={week ? 7 : 1}
        all={shown}
        {move}
        open={(w) => place.set({ week: w ? '1' : '' })}
        moved={undos.length}
        hand={inHand.filter((x) => band.sections.includes(x)).length}
        {undo}
      />
    {/if}
    {#if p && !opened}
      <CalendarLists
        {p}
        of={band?.calendar && line > 0 ? band.title : 'all courses'}
        {course}
        {may}
        under={Boolean(place.get('day'))}
        open={(at) => place.set({ ...shut, ...at })}
      />
    {/if}
    <p class="quiet keys">
      A stalk is what is due that day; hatched days are off; the tinted days are for finals.
      <kbd>←</kbd> <kbd>→</kbd> go by day, <kbd>[</kbd> <kbd>]</kbd> by week, with Shift they move.
    </p>
  </aside>
</div>
{#if p && inHand.length}
  <HandFrame
    title="{many(inHand.length, 'section')} in hand"
    words={planned.map((m) => m.code).join(', ')}
  >
    <button class="link quiet" onclick={() => hand.drop()}>Put all back</button>
    {#if may}
      {#if parts.length}
        <select
          class="entry by"
          aria-label="Calendar by which they go"
          value=""
          onchange={(e) => goBy(e.currentTarget.value)}
        >
          <option value="" disabled>They go by …</option>
          {#each p.calendars as c (c.id)}<option value={c.id}>{c.says.name}</option>{/each}
        </select>
      {/if}
      <Act onclick={() => place.set({ ...shut, meet: '1' })}>When they meet …</Act>
    {/if}
    <Act onclick={look}>Next to look at&nbsp;<kbd>n</kbd></Act>
    {#if may && planned.length === 1}
      <Act main onclick={() => place.go('/deliveries/new?master=' + planned[0].id)}
        >Plan these dates for {many(inHand.length, 'section')}</Act
      >
    {:else if may}
      {#each planned.slice(0, 3) as m (m.id)}
        <Act onclick={() => place.go('/deliveries/new?master=' + m.id)}>Plan {m.code}</Act>
      {/each}
    {/if}
  </HandFrame>
{:else if r?.bands.length}
  <HandFrame
    title="No section in hand"
    words="Choose a line by its name, or with Space, to plan its dates or to say when it meets"
  >
    <Act onclick={look}>Next to look at&nbsp;<kbd>n</kbd></Act>
  </HandFrame>
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
    align-items: baseline;
    gap: 4px 14px;
    padding-right: 16px;
    flex-wrap: wrap;
  }
  .find {
    margin-left: auto;
    width: 150px;
    min-height: 26px;
    padding-top: 1px;
    padding-bottom: 1px;
    font-size: 13px;
  }
  .sum {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 10px;
    margin: 6px 0 8px -6px;
    color: var(--ink-2);
    align-items: center;
  }
  .sort {
    display: flex;
    gap: 6px;
    align-items: center;
    cursor: pointer;
    padding: 1px 6px;
    border-radius: var(--r);
    border: 1px solid transparent;
  }
  .sort:hover {
    border-color: var(--line);
  }
  .sort[aria-pressed='true'] {
    background: var(--do-soft);
    border-color: var(--do);
    color: var(--ink);
  }
  .sort b {
    color: var(--ink);
  }
  .none {
    padding: 24px 0;
    max-width: 560px;
  }
  .beside {
    display: flex;
    flex-direction: column;
    gap: 14px;
    min-height: 0;
    overflow: auto;
    padding: 14px 16px;
    border-left: 1px solid var(--line);
    background: var(--paper);
  }
  .keys {
    margin-top: auto;
    padding-top: 10px;
    border-top: 1px solid var(--line);
    font-size: 13px;
  }
  .by {
    width: 130px;
  }
</style>
