<script lang="ts">
  import { figure } from '../marks/words';
  import { finals, isoOf, load, off, sortsOf, weeks, type Band, type Ribbon } from './ribbon';

  /** What is due each day: calendars above each other, days off hatched. */
  let {
    r,
    band,
    day,
    go,
    take,
    move,
    look,
  }: {
    r: Ribbon;
    band: number;
    day: number;
    go: (band: number, day: number) => void;
    /** The sections of a line into the hand. */
    take: (band: number) => void;
    /** What is due on the day, by so many days. */
    move: (days: number) => void;
    /** To the next that wants a look. */
    look: () => void;
  } = $props();

  const HIGH = 46;
  let surface: HTMLElement;
  let dragged = $state.raw<{ band: number; from: number; to: number }>();
  const share = (days: number) => `${(100 * days) / r.days}%`;
  const name = (d: number) =>
    new Date(isoOf(d)).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' });
  let head = $derived(r.bands[0]?.calendar ? weeks(r.bands[0].calendar, r.from, r.days) : []);
  let here = $derived(r.bands[band]);
  let said = $derived.by(() => {
    if (!here) return '';
    const at = here.byDay.get(day) ?? [];
    const date = new Date(isoOf(day)).toLocaleDateString('en-GB', {
      weekday: 'long',
      day: 'numeric',
      month: 'long',
    });
    return `${here.title}, ${date}: ${at.length ? `${at.length} due, ${figure(load(at))} in all sections` : 'nothing is due'}`;
  });

  function bars(b: Band) {
    return [...b.byDay].map(([d, all]) => ({
      d,
      h: Math.max(3, (HIGH * load(all)) / b.highest),
      look: all.some((a) => sortsOf(a.due)[0] !== 'plain'),
    }));
  }

  function keys(e: KeyboardEvent) {
    if (!here) return;
    const step = { ArrowLeft: -1, ArrowRight: 1, '[': -7, ']': 7, '{': -7, '}': 7 }[e.key];
    if (step && (e.shiftKey || '{}'.includes(e.key))) move(step);
    else if (step) go(band, Math.min(r.from + r.days - 1, Math.max(r.from, day + step)));
    else if (e.key === 'ArrowUp') go(Math.max(0, band - 1), day);
    else if (e.key === 'ArrowDown') go(Math.min(r.bands.length - 1, band + 1), day);
    else if (e.key === ' ') take(band);
    else if (e.key === 'n') look();
    else return;
    e.preventDefault();
    queueMicrotask(() =>
      surface.querySelector('.band.here')?.scrollIntoView?.({ block: 'nearest' }),
    );
  }

  function dayAt(e: PointerEvent): number {
    const box = (e.currentTarget as Element).getBoundingClientRect();
    const at = Math.floor(((e.clientX - box.left) / box.width) * r.days);
    return r.from + Math.min(r.days - 1, Math.max(0, at));
  }
  function down(e: PointerEvent, b: number) {
    if (e.button) return;
    const d = dayAt(e);
    go(b, d);
    surface.focus({ preventScroll: true });
    if (r.bands[b].byDay.has(d)) {
      dragged = { band: b, from: d, to: d };
      (e.currentTarget as Element).setPointerCapture?.(e.pointerId);
    }
  }
  function drag(e: PointerEvent) {
    if (dragged) dragged = { ...dragged, to: dayAt(e) };
  }
  function drop() {
    const by = dragged ? dragged.to - dragged.from : 0;
    dragged = undefined;
    if (by) move(by);
  }
</script>

<div class="cols" aria-hidden="true">
  <span></span>
  <div class="weeks fig">
    {#each head as w, i (w.day)}
      <span style="left:{share(w.day - r.from)}"
        >{w.n}<br /><small>{i % 2 ? '' : name(w.day)}</small></span
      >
    {/each}
  </div>
</div>
<div
  class="ribbon"
  role="grid"
  tabindex="0"
  aria-label="What is due each day"
  aria-describedby="ribbon-at"
  bind:this={surface}
  onkeydown={keys}
>
  {#each r.bands as b, i (b.key)}
    {@const c = b.calendar}
    <div class="band" class:here={i === band} role="row">
      <div class="of" role="rowheader">
        <button class="name" title="Take these sections in hand" onclick={() => take(i)}>
          <b class="cut">{b.title}</b><span class="quiet">{b.words}</span>
        </button>
      </div>
      <div
        class="days"
        role="gridcell"
        tabindex="-1"
        aria-label="{figure(b.dates)} dates"
        onpointerdown={(e) => down(e, i)}
        onpointermove={drag}
        onpointerup={drop}
        onpointercancel={() => (dragged = undefined)}
      >
        {#if c}
          <div
            class="open"
            style="left:{share(b.first - r.from)};width:{share(b.end - b.first + 1)}"
          ></div>
          {#each off(c, r.from, r.days) as o (o.at + o.name)}
            <div class="off" title={o.name} style="left:{share(o.at)};width:{share(o.days)}"></div>
          {/each}
          {@const f = finals(c, r.from, r.days)}
          {#if f}
            <div
              class="finals"
              title="Finals"
              style="left:{share(f.at)};width:{share(f.days)}"
            ></div>
          {/if}
        {/if}
        <svg viewBox="0 0 {r.days * 10} {HIGH + 4}" preserveAspectRatio="none" aria-hidden="true">
          {#each bars(b) as s (s.d)}
            <rect
              class:look={s.look}
              x={(s.d - r.from) * 10 + 2}
              y={HIGH + 2 - s.h}
              width="6"
              height={s.h}
            />
          {/each}
        </svg>
        {#if i === band}
          <div class="cursor" style="left:{share(day - r.from)};width:{share(1)}"></div>
        {/if}
        {#if dragged?.band === i && dragged.to !== dragged.from}
          <div class="to" style="left:{share(dragged.to - r.from)};width:{share(1)}"></div>
        {/if}
      </div>
    </div>
  {/each}
</div>
<p id="ribbon-at" class="unseen" aria-live="polite">{said}</p>

<style>
  .cols,
  .band {
    display: grid;
    grid-template-columns: 196px minmax(0, 1fr);
  }
  .cols {
    padding-right: 16px;
    color: var(--ink-2);
  }
  .weeks {
    position: relative;
    height: 40px;
  }
  .weeks span {
    position: absolute;
    white-space: nowrap;
    line-height: 19px;
  }
  .weeks small {
    font-size: 12px;
  }
  .ribbon {
    overflow: auto;
    min-height: 0;
    flex: 1;
    padding-right: 16px;
    user-select: none;
  }
  .ribbon:focus-visible {
    outline: none;
  }
  .ribbon:focus-visible .cursor {
    outline: 2px solid var(--do);
    outline-offset: 1px;
  }
  .band {
    border-bottom: 1px solid var(--line);
    padding: 6px 0;
  }
  .band.here {
    background: var(--paper);
    box-shadow: inset 3px 0 0 var(--do);
  }
  .name {
    display: grid;
    width: 100%;
    padding: 2px 10px;
    text-align: left;
    cursor: pointer;
    font-size: 13px;
    line-height: 18px;
  }
  .name b {
    font-size: 14px;
  }
  .days {
    position: relative;
    height: 52px;
    cursor: pointer;
    touch-action: none;
  }
  .days > * {
    position: absolute;
    top: 0;
    bottom: 0;
    pointer-events: none;
  }
  .off {
    pointer-events: auto;
    background: repeating-linear-gradient(135deg, transparent 0 3px, var(--calm) 3px 4px);
    opacity: 0.7;
  }
  .open {
    background: var(--paper);
  }
  .band.here .open {
    background: var(--raise);
  }
  .finals {
    background: var(--mind-soft);
  }
  svg {
    left: 0;
    width: 100%;
    height: 100%;
  }
  rect {
    fill: var(--calm);
  }
  rect.look {
    fill: var(--mind-mark);
  }
  .cursor {
    border: 2px solid var(--do);
  }
  .to {
    border: 2px dashed var(--do);
    background: var(--do-soft);
  }
  .unseen {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
</style>
