<script lang="ts">
  import { hand } from '../frame/hand.svelte';
  import { place } from '../frame/place.svelte';
  import { Drawn, type Rectangle } from '../lists/drawn';
  import { beside, type Spot } from '../lists/lines';
  import { many } from '../marks/words';
  import type { TieKind } from '../marks/tieShapes';
  import HostSlot from './HostSlot.svelte';
  import { overdue, standings, standingWords, type Cell, type HostBand } from './tools';

  /** Every host; its sections stand over the stage where they are stuck. */
  let { bands, host, before }: { bands: HostBand[]; host?: HostBand; before: number } = $props();

  const kinds: TieKind[] = ['none', 'waits', 'wrong', 'open', 'works'];
  const drawn = new Drawn();
  let chosen = $state.raw<Spot>();
  const cellAt = (s?: Spot): Cell | undefined => s && bands[s.band]?.slots[s.slot]?.[s.n];
  let cursor = $derived(cellAt(chosen) ? chosen : beside(bands, { band: 0, slot: -1, n: 0 }, 1));

  let surface: HTMLElement;
  let box = $state.raw<Rectangle | null>(null);
  let start: { x: number; y: number } | null = null;

  function down(e: PointerEvent) {
    if (e.button || (e.target as Element).closest('button')) return;
    start = { x: e.clientX, y: e.clientY };
    surface.setPointerCapture?.(e.pointerId);
  }
  function sweep(e: PointerEvent) {
    if (!start) return;
    if (!box && Math.abs(start.x - e.clientX) + Math.abs(start.y - e.clientY) <= 6) return;
    box = {
      x: Math.min(start.x, e.clientX),
      y: Math.min(start.y, e.clientY),
      w: Math.abs(e.clientX - start.x),
      h: Math.abs(e.clientY - start.y),
    };
  }
  function up(e: PointerEvent) {
    const swept = box ? drawn.within(bands.length, box) : [];
    const one = start && !box ? drawn.under(bands.length, e.clientX, e.clientY) : undefined;
    start = null;
    box = null;
    if (swept.length) {
      const last = bands[swept.at(-1)!.band];
      const ids = swept.filter((s) => bands[s.band] === last).map((s) => cellAt(s)!.section.id);
      if (e.shiftKey && last === host) hand.take(ids);
      else hand.only(ids);
      place.set({ host: last.host });
    } else if (one) {
      chosen = one;
      if (e.metaKey || e.ctrlKey || e.shiftKey) toggle(cellAt(one)!);
      else open(cellAt(one)!);
    }
  }

  function takeAll(band: HostBand, slot: Cell[]) {
    const ids = slot.map((c) => c.section.id);
    if (band === host && ids.every((id) => hand.has(id))) {
      const gone = new Set(ids);
      hand.only([...hand.sections].filter((id) => !gone.has(id)));
    } else if (band === host) hand.take(ids);
    else hand.only(ids);
    place.set({ host: band.host });
  }

  function open(c: Cell) {
    place.set({ host: c.host, at: c.section.id });
  }

  function toggle(c: Cell) {
    if (c.host !== host?.host) hand.drop();
    hand.toggle(c.section.id);
    place.set({ host: c.host });
  }

  /** Arrows go from mark to mark; Space takes, Enter opens. */
  function keys(e: KeyboardEvent) {
    const c = cellAt(cursor);
    if (!c || !cursor || (e.target as Element).closest('button')) return;
    let to: Spot | undefined;
    if (e.key === 'ArrowRight') to = beside(bands, cursor, 1);
    else if (e.key === 'ArrowLeft') to = beside(bands, cursor, -1);
    else if (e.key === 'ArrowDown' || e.key === 'ArrowUp')
      to = drawn.near(bands, cursor, e.key === 'ArrowDown' ? 1 : -1);
    else if (e.key === ' ') toggle(c);
    else if (e.key === 'Enter') open(c);
    else return;
    e.preventDefault();
    if (to) {
      chosen = to;
      drawn.reveal(to);
    }
  }
</script>

<div class="cols" aria-hidden="true">
  <span></span>
  {#each standings as s (s)}<span class:ok={s === 'WORKS'}>{standingWords[s]}</span>{/each}
</div>
<div
  class="hosts"
  bind:this={surface}
  onpointerdown={down}
  onpointermove={sweep}
  onpointerup={up}
  onkeydown={keys}
  role="grid"
  tabindex="0"
  aria-label="Hosts, their sections over the stage where they are stuck"
  aria-activedescendant={cursor ? 'host-at' : undefined}
>
  {#each bands as band, b (band.host)}
    {@const here = band === host}
    <div class="host" class:here role="row">
      <div role="rowheader" class="of">
        <button class="name" onclick={() => place.set({ host: band.host, at: '' })}>
          <b class="cut">{band.name}</b>
          {#if band.name !== band.host}<span class="fig quiet cut">{band.host}</span>{/if}
          <span class="quiet small">
            {many(band.links, 'link')} · {many(band.cells.length, 'section')}
          </span>
        </button>
      </div>
      {#each band.slots as slot, i (i)}
        {@const late = i === 3 && overdue(band, before) > 0}
        <div
          class="slot"
          role="gridcell"
          class:ok={i === 4}
          class:no={!band.can[i]}
          aria-label={band.can[i]
            ? undefined
            : `${standingWords[standings[i]]}: it has no such stage`}
          class:all={here && slot.length > 0 && slot.every((c) => hand.has(c.section.id))}
        >
          <HostSlot
            {slot}
            kind={kinds[i]}
            {here}
            cursor={cursor?.band === b && cursor.slot === i ? cursor.n : -1}
            draws={(lines, at) => drawn.set(b, i, lines, at)}
          />
          {#if slot.length}
            <button
              class="fig count"
              class:late
              title="Take these {slot.length} in hand"
              aria-label="Take in hand: {band.name}, {standingWords[
                standings[i]
              ]}, {slot.length} sections"
              onclick={() => takeAll(band, slot)}>{slot.length}{late ? ' overdue' : ''}</button
            >
          {/if}
        </div>
      {/each}
    </div>
  {/each}
  {#if box}
    <div class="box" style="left:{box.x}px;top:{box.y}px;width:{box.w}px;height:{box.h}px"></div>
  {/if}
</div>

<style>
  .cols,
  .host {
    display: grid;
    grid-template-columns: 196px 1.25fr 1fr 1fr 1.15fr 2.4fr;
  }
  .cols {
    color: var(--ink-2);
    font-size: 13px;
    padding: 0 16px 4px 0;
    border-bottom: 1px solid var(--line);
  }
  .cols span {
    padding-left: 8px;
  }
  .cols .ok {
    color: var(--ink);
    font-weight: 650;
  }
  .hosts {
    overflow: auto;
    min-height: 0;
    flex: 1;
    padding-right: 16px;
    user-select: none;
  }
  .hosts:focus-visible {
    outline: none;
  }
  .host {
    border-bottom: 1px solid var(--line-soft);
    min-height: 66px;
  }
  .host.here {
    background: var(--paper);
    box-shadow: inset 3px 0 0 var(--do);
  }
  .of {
    min-width: 0;
  }
  .name {
    width: 100%;
    padding: 8px 10px 6px;
    text-align: left;
    cursor: pointer;
    display: grid;
    min-width: 0;
  }
  .small {
    font-size: 13px;
  }
  .slot {
    border-left: 1px solid var(--line-soft);
    padding: 6px 6px 3px 7px;
    display: flex;
    flex-direction: column;
    justify-content: flex-end;
    gap: 2px;
    min-width: 0;
  }
  .slot.no {
    background: repeating-linear-gradient(135deg, transparent 0 5px, var(--line-soft) 5px 6px);
  }
  .slot.all {
    outline: 1.5px dashed var(--do);
    outline-offset: -2px;
    background: var(--do-soft);
  }
  .count {
    color: var(--ink-3);
    line-height: 17px;
    text-align: left;
    align-self: flex-start;
    cursor: pointer;
  }
  .count:hover {
    text-decoration: underline;
    color: var(--do);
  }
  .slot.all .count,
  .slot.ok .count {
    color: var(--ink);
  }
  .slot .count.late {
    color: var(--harm);
  }
  .box {
    position: fixed;
    border: 1px dashed var(--do);
    background: color-mix(in srgb, var(--do) 14%, transparent);
    pointer-events: none;
    z-index: 10;
  }
  @media (max-width: 1180px) {
    .cols,
    .host {
      grid-template-columns: 158px 1.1fr 1fr 1fr 1.1fr 1.8fr;
    }
  }
</style>
