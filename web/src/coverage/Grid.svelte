<script lang="ts">
  import { along } from '../lists/along';
  import Rows from '../lists/Rows.svelte';
  import Standing from '../marks/Standing.svelte';
  import { hand } from '../frame/hand.svelte';
  import { place } from '../frame/place.svelte';
  import { standWords, type Master, type Sec, type Stand } from './model';

  let { stands, masters, master }: { stands: Stand[]; masters: Master[]; master?: Master } =
    $props();

  type Line =
    | { group: string; n: number; ids: string[] }
    | { section: Sec; order: number; of: Map<string, Stand> };
  let group = $derived(place.get('group') || 'course');
  let sort = $derived(place.get('sort') || 'code');
  let used = $derived.by(() => {
    const some = new Set(stands.map((s) => s.master));
    return masters.filter((m) => some.has(m));
  });

  let lines = $derived.by(() => {
    const bySection = new Map<Sec, { section: Sec; order: number; of: Map<string, Stand> }>();
    for (const s of stands) {
      let line = bySection.get(s.section);
      if (!line)
        bySection.set(s.section, (line = { section: s.section, order: s.order, of: new Map() }));
      line.of.set(s.master.id, s);
    }
    const all = [...bySection.values()];
    const worst = (l: { of: Map<string, Stand> }) =>
      Math.max(
        ...[...l.of.values()].map((s) => (s.never ? 99 : s.behind + (s.needsPerson ? 100 : 0))),
      );
    const one = (l: { of: Map<string, Stand> }) => {
      const s = l.of.get(sort);
      return s ? (s.never ? -1 : s.number) : 1000;
    };
    all.sort((a, b) =>
      sort === 'code'
        ? a.order - b.order
        : sort === 'instructor'
          ? a.section.instructors.localeCompare(b.section.instructors)
          : sort === 'worst'
            ? worst(b) - worst(a)
            : one(a) - one(b),
    );
    if (group === 'none') return all as Line[];
    const name = (s: Sec) =>
      group === 'campus' ? s.campus : group === 'instructor' ? s.instructors || 'nobody' : s.course;
    const groups = new Map<string, typeof all>();
    for (const l of all) {
      const of = groups.get(name(l.section));
      if (of) of.push(l);
      else groups.set(name(l.section), [l]);
    }
    const out: Line[] = [];
    for (const [g, of] of [...groups].sort((a, b) => a[0].localeCompare(b[0]))) {
      out.push({ group: g, n: of.length, ids: of.map((l) => l.section.id) });
      out.push(...of);
    }
    return out;
  });

  let at = $state(0);
  let left = $state(0);
  let rows: { reveal: (i: number) => void; page: () => number };
  let frame: HTMLElement;

  function keys(e: KeyboardEvent) {
    const line = lines[at];
    const to = along(e.key, at, lines.length, rows.page());
    if (to !== undefined) at = to;
    else if (e.key === ' ' && line) takeLine(line);
    else if (e.key === 'Enter' && line && 'section' in line) place.set({ at: line.section.id });
    else return;
    e.preventDefault();
    rows.reveal(at);
  }

  function takeLine(line: Line) {
    if ('section' in line) hand.toggle(line.section.id);
    else if (line.ids.every((id) => hand.has(id)))
      hand.only([...hand.sections].filter((id) => !line.ids.includes(id)));
    else hand.take(line.ids);
  }
</script>

<div class="tools">
  <label>
    <span class="quiet">Group by</span>
    <select
      class="entry"
      value={group}
      onchange={(e) => place.set({ group: e.currentTarget.value })}
    >
      <option value="course">course</option><option value="campus">campus</option>
      <option value="instructor">instructor</option><option value="none">nothing</option>
    </select>
  </label>
  <label>
    <span class="quiet">Sort by</span>
    <select class="entry" value={sort} onchange={(e) => place.set({ sort: e.currentTarget.value })}>
      <option value="code">code</option><option value="instructor">instructor</option>
      <option value="worst">what needs you first</option>
      {#each used as m (m.id)}<option value={m.id}>version of {m.code}</option>{/each}
    </select>
  </label>
  <span class="quiet count">{new Set(stands.map((s) => s.section)).size} sections</span>
</div>

<div
  class="grid"
  role="grid"
  aria-label="Sections and masters"
  aria-rowcount={lines.length}
  tabindex="0"
  bind:this={frame}
  onkeydown={keys}
  style="--cols: 26px 72px 64px minmax(110px, 1fr) repeat({used.length}, minmax(60px, 76px)); --left: {left}px"
>
  <div class="line top" role="row">
    <span role="columnheader" class="stay" aria-label="In hand"></span>
    <span role="columnheader" class="stay">Section</span><span role="columnheader">Campus</span>
    <span role="columnheader">Instructor</span>
    {#each used as m (m.id)}
      <span role="columnheader" class="fig cut" class:here={m === master} title={m.title}
        >{m.code}</span
      >
    {/each}
  </div>
  <Rows rows={lines} height={27} least="{304 + used.length * 64}px" bind:left bind:this={rows}>
    {#snippet row(line: Line, i: number)}
      {#if 'section' in line}
        <!-- svelte-ignore a11y_click_events_have_key_events -->
        <div
          class="line"
          role="row"
          tabindex="-1"
          aria-rowindex={i + 1}
          aria-selected={hand.has(line.section.id)}
          class:held={hand.has(line.section.id)}
          class:at={i === at}
          onclick={() => ((at = i), frame.focus(), place.set({ at: line.section.id }))}
        >
          <span role="gridcell" class="stay">
            <input
              type="checkbox"
              tabindex="-1"
              aria-label="Take {line.section.code} in hand"
              checked={hand.has(line.section.id)}
              onclick={(e) => (e.stopPropagation(), hand.toggle(line.section.id))}
            />
          </span>
          <span role="gridcell" class="fig stay code">{line.section.code}</span>
          <span role="gridcell" class="quiet">{line.section.campus}</span>
          <span role="gridcell" class="quiet cut">{line.section.instructors}</span>
          {#each used as m (m.id)}
            {@const s = line.of.get(m.id)}
            <span role="gridcell" class="cell fig" title={s ? standWords(s) : ''}>
              {#if s}
                <Standing
                  size={15}
                  share={s.share}
                  behind={s.behind}
                  never={s.never}
                  changed={s.changed > 0}
                  failed={s.needsPerson}
                />
                <span class="quiet">{s.never ? 'never' : 'v' + s.number}</span>
              {/if}
            </span>
          {/each}
        </div>
      {:else}
        <div class="line group" role="row" class:at={i === at} aria-rowindex={i + 1}>
          <span role="gridcell" class="span">
            <button
              class="link"
              tabindex="-1"
              onclick={() => takeLine(line)}
              title="Take all in hand">{line.group}</button
            >
            <span class="faint fig">{line.n}</span>
          </span>
        </div>
      {/if}
    {/snippet}
  </Rows>
</div>

<style>
  .tools {
    display: flex;
    gap: 16px;
    align-items: center;
    padding-bottom: 6px;
    font-size: 13px;
  }
  .tools label {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .tools .entry {
    min-height: 26px;
    padding-top: 1px;
    padding-bottom: 1px;
  }
  .count {
    margin-left: auto;
    padding-right: 16px;
  }
  .grid {
    display: flex;
    flex-direction: column;
    min-height: 0;
    flex: 1;
    border-top: 1px solid var(--line);
  }
  .line {
    display: grid;
    grid-template-columns: var(--cols);
    gap: 4px;
    align-items: center;
    height: 27px;
    border-bottom: 1px solid var(--line-soft);
    font-size: 13px;
    cursor: default;
    padding-right: 16px;
  }
  .line.top {
    color: var(--ink-2);
    border-color: var(--line);
    flex: none;
    overflow: hidden;
  }
  .line.top span {
    position: relative;
    left: calc(-1 * var(--left));
  }
  .line.top .stay {
    left: 0;
    z-index: 1;
  }
  /* What tells the sections apart stays in sight when many masters are moved sideways. */
  .stay {
    position: sticky;
    left: 0;
    background: var(--ground);
    height: 26px;
    align-content: center;
  }
  .stay.code {
    left: 30px;
    margin-left: -4px;
    padding-left: 4px;
  }
  .held .stay {
    background: var(--do-soft);
  }
  .line.top .here {
    color: var(--ink);
    font-weight: 650;
  }
  .line.group {
    background: var(--paper);
  }
  .span {
    position: sticky;
    left: 0;
    justify-self: start;
    grid-column: 1 / -1;
    padding-left: 6px;
    font-weight: 650;
  }
  .line.held {
    background: var(--do-soft);
  }
  .grid:focus-visible {
    outline: none;
  }
  .grid:focus-visible .line.at {
    outline: 2px solid var(--do);
    outline-offset: -2px;
  }
  .cell {
    display: flex;
    gap: 3px;
    align-items: center;
  }
  input {
    accent-color: var(--do);
    margin: 0 6px;
    display: block;
  }
</style>
