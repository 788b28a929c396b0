<script lang="ts">
  import { hand } from '../frame/hand.svelte';
  import { place } from '../frame/place.svelte';
  import { type Master, type Stand } from './model';
  import { markSizes } from './markSizes';
  import SpreadSlot from './SpreadSlot.svelte';
  import { Drawn, type Rectangle } from '../lists/drawn';
  import { beside, type Spot } from '../lists/lines';
  import { bands as bandsOf, columns, spotOf, standAt } from './spread';

  let { stands, masters, master }: { stands: Stand[]; masters: Master[]; master?: Master } =
    $props();

  let bands = $derived(bandsOf(stands, masters));
  let width = $state(930);
  let height = $state(600);
  let names = $derived(width < 800 ? 150 : 186);
  let size = $derived(
    markSizes(
      bands.map((b) => b.slots.map((s) => s.length)),
      width - names - 16,
      height,
    ),
  );
  let at = $derived(place.get('at'));

  let surface: HTMLElement;
  const drawn = new Drawn();
  /** The chosen mark; it stays where it is while that is there. */
  let chosen = $state.raw<Spot>();
  let cursor = $derived(standAt(bands, chosen) ? chosen : spotOf(bands, master, at));

  let box = $state.raw<Rectangle | null>(null);
  let start: { x: number; y: number } | null = null;

  /** Sweeping over marks takes their sections in hand. */
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
    const swept = box ? drawn.within(bands.length, box).map((spot) => standAt(bands, spot)!) : [];
    const one = start && !box ? drawn.under(bands.length, e.clientX, e.clientY) : undefined;
    start = null;
    box = null;
    if (swept.length) {
      const ids = swept.map((s) => s.section.id);
      if (e.shiftKey) hand.take(ids);
      else hand.only(ids);
      place.set({ master: swept.at(-1)!.master.id });
    } else if (one) {
      chosen = one;
      const s = standAt(bands, one)!;
      if (e.metaKey || e.ctrlKey || e.shiftKey) toggle(s);
      else open(s);
    }
  }

  function takeAll(m: Master, slot: Stand[]) {
    const ids = slot.map((s) => s.section.id);
    const whole = m === master && ids.every((id) => hand.has(id));
    if (whole) {
      const gone = new Set(ids);
      hand.only([...hand.sections].filter((id) => !gone.has(id)));
    } else if (m === master) hand.take(ids);
    else hand.only(ids);
    place.set({ master: m.id });
  }

  function open(s: Stand) {
    place.set({ master: s.master.id, at: s.section.id });
  }

  function toggle(s: Stand) {
    if (s.master !== master) hand.drop();
    hand.toggle(s.section.id);
    place.set({ master: s.master.id });
  }

  /** Arrows go from mark to mark; Space takes, Enter opens. */
  function keys(e: KeyboardEvent) {
    const s = standAt(bands, cursor);
    if (!s || !cursor || (e.target as Element).closest('button')) return;
    let to: Spot | undefined;
    if (e.key === 'ArrowRight') to = beside(bands, cursor, 1);
    else if (e.key === 'ArrowLeft') to = beside(bands, cursor, -1);
    else if (e.key === 'ArrowDown' || e.key === 'ArrowUp')
      to = drawn.near(bands, cursor, e.key === 'ArrowDown' ? 1 : -1);
    else if (e.key === ' ') toggle(s);
    else if (e.key === 'Enter') open(s);
    else return;
    e.preventDefault();
    if (to) {
      chosen = to;
      drawn.reveal(to);
    }
  }

  /** The versions that they hold, and how many they are. */
  function label(slot: Stand[]): string {
    let low = Infinity;
    let high = 0;
    for (const s of slot) {
      low = Math.min(low, s.number);
      high = Math.max(high, s.number);
    }
    return `${high ? (low < high ? `v${low}–v${high} · ` : `v${high} · `) : ''}${slot.length}`;
  }
</script>

<div class="cols" aria-hidden="true" style="margin-left:{names}px">
  {#each columns as c, i (c)}<span class:new={i === 4}>{c}</span>{/each}
</div>
<div
  class="bands"
  bind:this={surface}
  bind:clientWidth={width}
  bind:clientHeight={height}
  style="--names:{names}px"
  onpointerdown={down}
  onpointermove={sweep}
  onpointerup={up}
  onkeydown={keys}
  role="grid"
  tabindex="0"
  aria-label="Sections over the version they hold"
  aria-activedescendant={cursor ? 'spread-at' : undefined}
>
  {#each bands as band, b (band.master.id)}
    {@const here = band.master === master}
    <div class="band" class:here role="row">
      <div role="rowheader" class="of">
        <button class="name" onclick={() => place.set({ master: band.master.id, at: '' })}>
          <b class="fig">{band.master.code}</b>
          <span class="faint fig">v{band.master.versions.length}</span>
          <span class="quiet cut title">{band.master.title}</span>
        </button>
      </div>
      {#each band.slots as slot, i (i)}
        <div
          class="slot"
          role="gridcell"
          class:new={i === 4}
          class:all={slot.length > 0 && here && slot.every((s) => hand.has(s.section.id))}
        >
          <SpreadSlot
            {slot}
            size={size[b][i]}
            {here}
            cursor={cursor?.band === b && cursor.slot === i ? cursor.n : -1}
            draws={(lines, at) => drawn.set(b, i, lines, at)}
          />
          {#if slot.length}
            <button
              class="fig count"
              title="Take these {slot.length} in hand"
              aria-label="Take in hand: {band.master.code}, {columns[i]}, {slot.length} sections"
              onclick={() => takeAll(band.master, slot)}>{label(slot)}</button
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
  .band {
    --axis: minmax(56px, 0.9fr) minmax(56px, 0.9fr) minmax(64px, 1.1fr) minmax(96px, 1.8fr)
      minmax(180px, 4fr);
    display: grid;
  }
  .cols {
    grid-template-columns: var(--axis);
    color: var(--ink-2);
    font-size: 13px;
    padding: 0 16px 4px 0;
    border-bottom: 1px solid var(--line);
  }
  .cols span {
    padding-left: 8px;
    align-self: end;
  }
  .cols .new {
    color: var(--ink);
    font-weight: 650;
  }
  .bands {
    overflow: auto;
    min-height: 0;
    padding-right: 16px;
    user-select: none;
    flex: 1;
  }
  .bands:focus-visible {
    outline: none;
  }
  .band {
    grid-template-columns: var(--names) var(--axis);
    border-bottom: 1px solid var(--line-soft);
    min-height: 52px;
  }
  .band.here {
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
    align-self: start;
    cursor: pointer;
    min-width: 0;
  }
  .title {
    display: block;
  }
  .slot {
    border-left: 1px solid var(--line-soft);
    padding: 5px 6px 3px 7px;
    display: flex;
    flex-direction: column;
    justify-content: flex-end;
    gap: 1px;
    min-width: 0;
  }
  .slot.all {
    outline: 1.5px dashed var(--do);
    outline-offset: -2px;
    background: var(--do-soft);
  }
  .count {
    color: var(--ink-3);
    white-space: nowrap;
    line-height: 17px;
    text-align: left;
    align-self: flex-start;
    cursor: pointer;
  }
  .count:hover {
    text-decoration: underline;
    color: var(--do);
  }
  .slot.new .count {
    color: var(--ink);
  }
  .box {
    position: fixed;
    border: 1px dashed var(--do);
    background: color-mix(in srgb, var(--do) 14%, transparent);
    pointer-events: none;
    z-index: 10;
  }
</style>
