<script lang="ts">
  import Standing from '../lib/Standing.svelte';
  import { hand } from '../lib/hand.svelte';
  import { place } from '../lib/place.svelte';
  import { standWords, type Master, type Stand } from './model';
  import { markSizes } from './markSizes';

  let { stands, masters, master }: { stands: Stand[]; masters: Master[]; master?: Master } =
    $props();

  const columns = ['never', '3 or more', '2 behind', '1 behind', 'newest version'];
  let bands = $derived(
    masters
      .filter((m) => m.versions.length)
      .map((m) => {
        const slots: Stand[][] = [[], [], [], [], []];
        for (const s of stands) {
          if (s.master === m) slots[s.never ? 0 : Math.max(1, 4 - s.behind)].push(s);
        }
        return { master: m, slots };
      }),
  );

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

  let box = $state.raw<{ x: number; y: number; w: number; h: number } | null>(null);
  let start: { x: number; y: number } | null = null;
  let surface: HTMLElement;

  /** Sweeping over marks takes their sections in hand. */
  function down(e: PointerEvent) {
    if (e.button || (e.target as Element).closest('button')) return;
    start = { x: e.clientX, y: e.clientY };
    surface.setPointerCapture(e.pointerId);
  }
  function move(e: PointerEvent) {
    if (!start) return;
    box = {
      x: Math.min(start.x, e.clientX),
      y: Math.min(start.y, e.clientY),
      w: Math.abs(e.clientX - start.x),
      h: Math.abs(e.clientY - start.y),
    };
  }
  function up(e: PointerEvent) {
    if (box && box.w + box.h > 6) {
      const b = box;
      const swept: string[] = [];
      let of = '';
      for (const el of surface.querySelectorAll<HTMLElement>('[data-section]')) {
        const r = el.getBoundingClientRect();
        if (r.right > b.x && r.left < b.x + b.w && r.bottom > b.y && r.top < b.y + b.h) {
          swept.push(el.dataset.section!);
          of = el.dataset.master!;
        }
      }
      if (swept.length) {
        if (e.shiftKey) hand.take(swept);
        else hand.only(swept);
        place.set({ master: of });
      }
    }
    start = null;
    box = null;
  }

  function takeAll(m: Master, slot: Stand[]) {
    const ids = slot.map((s) => s.section.id);
    const whole = m === master && ids.every((id) => hand.has(id));
    if (whole) hand.only([...hand.sections].filter((id) => !ids.includes(id)));
    else if (m === master) hand.take(ids);
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
  function keys(e: KeyboardEvent, s: Stand) {
    const el = e.currentTarget as HTMLElement;
    const marks = [...surface.querySelectorAll<HTMLElement>('[data-section]')];
    const i = marks.indexOf(el);
    let next: HTMLElement | undefined;
    if (e.key === 'ArrowRight') next = marks[i + 1];
    else if (e.key === 'ArrowLeft') next = marks[i - 1];
    else if (e.key === 'ArrowDown' || e.key === 'ArrowUp')
      next = near(marks, el, e.key === 'ArrowDown');
    else if (e.key === ' ') toggle(s);
    else if (e.key === 'Enter') open(s);
    else return;
    e.preventDefault();
    next?.focus();
  }

  function near(marks: HTMLElement[], from: HTMLElement, down: boolean): HTMLElement | undefined {
    const a = from.getBoundingClientRect();
    let best: HTMLElement | undefined;
    let least = Infinity;
    for (const m of marks) {
      const b = m.getBoundingClientRect();
      const dy = down ? b.top - a.top : a.top - b.top;
      const cost = dy * 4 + Math.abs(b.left - a.left);
      if (dy > 4 && cost < least) {
        least = cost;
        best = m;
      }
    }
    return best;
  }

  function label(m: Master, i: number, n: number): string {
    if (i === 0) return String(n);
    const v = i === 1 ? Math.max(1, m.versions.length - 3) : m.versions.length - (4 - i);
    return `v${v} · ${n}`;
  }
  let first = $derived(stands[0]);
  let at = $derived(place.get('at'));
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
  onpointermove={move}
  onpointerup={up}
  role="group"
  aria-label="Sections over the version they hold"
>
  {#each bands as band, b (band.master.id)}
    {@const here = band.master === master}
    <div class="band" class:here>
      <button class="name" onclick={() => place.set({ master: band.master.id, at: '' })}>
        <b class="fig">{band.master.code}</b>
        <span class="faint fig">v{band.master.versions.length}</span>
        <span class="quiet cut title">{band.master.title}</span>
      </button>
      <div class="axis">
        {#each band.slots as slot, i (i)}
          <div
            class="slot"
            class:new={i === 4}
            class:all={slot.length > 0 && here && slot.every((s) => hand.has(s.section.id))}
          >
            <div class="d">
              {#each slot as s (s.section.id)}
                <button
                  class="m"
                  class:held={here && hand.has(s.section.id)}
                  data-section={s.section.id}
                  data-master={s.master.id}
                  tabindex={s === first || (here && s.section.id === at) ? 0 : -1}
                  title={standWords(s)}
                  aria-label={standWords(s)}
                  aria-pressed={here && hand.has(s.section.id)}
                  onclick={(e) => (e.metaKey || e.ctrlKey || e.shiftKey ? toggle(s) : open(s))}
                  onkeydown={(e) => keys(e, s)}
                >
                  <Standing
                    size={size[b][i]}
                    share={s.share}
                    behind={s.behind}
                    never={s.never}
                    changed={s.changed > 0}
                    failed={s.needsPerson}
                  />
                </button>
              {/each}
            </div>
            {#if slot.length}
              <button
                class="fig count"
                title="Take these {slot.length} in hand"
                aria-label="Take in hand: {band.master.code}, {columns[i]}, {slot.length} sections"
                onclick={() => takeAll(band.master, slot)}
                >{label(band.master, i, slot.length)}</button
              >
            {/if}
          </div>
        {/each}
      </div>
    </div>
  {/each}
  {#if box}
    <div class="box" style="left:{box.x}px;top:{box.y}px;width:{box.w}px;height:{box.h}px"></div>
  {/if}
</div>

<style>
  .cols,
  .axis {
    display: grid;
    grid-template-columns:
      minmax(56px, 0.9fr) minmax(56px, 0.9fr) minmax(64px, 1.1fr) minmax(96px, 1.8fr)
      minmax(180px, 4fr);
  }
  .cols {
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
  .band {
    display: grid;
    grid-template-columns: var(--names) 1fr;
    border-bottom: 1px solid var(--line-soft);
    min-height: 52px;
  }
  .band.here {
    background: var(--paper);
    box-shadow: inset 3px 0 0 var(--do);
  }
  .name {
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
  .d {
    display: flex;
    flex-wrap: wrap;
    gap: 1px 0;
  }
  .m {
    cursor: pointer;
    border-radius: 2px;
  }
  .m.held {
    background: var(--do-soft);
    box-shadow: 0 0 0 1px var(--do);
  }
  .all .m.held {
    box-shadow: none;
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
