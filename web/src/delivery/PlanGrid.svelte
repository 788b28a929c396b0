<script lang="ts">
  import type { Schemas } from '../api/client';
  import { place } from '../lib/place.svelte';
  import { reasons, stepWords } from '../lib/words';
  import PlanMarks from './PlanMarks.svelte';
  import {
    inside,
    moved,
    moving,
    picture,
    stepOf,
    stepsByKind,
    wanted,
    type Cell,
    type Row,
    type Spot,
  } from './plan';

  let {
    plan,
    lines,
    only,
  }: { plan: Schemas['DeliveryPlan']; lines: Schemas['DeliveryLine'][]; only: string } = $props();

  const height = 23;
  const title = 286;
  const head = 62;
  let open = $state.raw<ReadonlySet<string>>(new Set());
  let steps = $derived(stepsByKind(plan));
  let pic = $derived(picture(plan, steps, open, only));
  let width = $derived(pic.columns.length > 40 ? 22 : 36);
  let byId = $derived(new Map(lines.map((l) => [l.id, l])));

  let top = $state(0);
  let leftEdge = $state(0);
  let roomY = $state(500);
  let roomX = $state(800);
  /** Drawn is a little more than what is seen. */
  let sight = $derived({
    fromRow: Math.max(0, Math.floor(top / height) - 3),
    toRow: Math.min(pic.rows.length, Math.ceil((top + roomY - head) / height) + 3),
    fromCol: Math.max(0, Math.floor(leftEdge / width) - 2),
    toCol: Math.min(pic.columns.length, Math.ceil((leftEdge + roomX - title) / width) + 2),
  });
  let box: HTMLElement;

  let atLine = $derived(place.get('line'));
  let atItem = $derived(place.get('item'));
  let atCol = $derived(pic.columnOf[plan.lines.indexOf(atLine)] ?? -1);

  function openCell(row: Row, c: Cell) {
    if (row.type === 'item') place.set({ line: plan.lines[c.line], item: plan.rows[row.row].key });
  }

  function toggle(row: Row | undefined) {
    if (row?.type !== 'fold' || !row.key) return;
    const next = new Set(open);
    if (!next.delete(row.key)) next.add(row.key);
    open = next;
  }

  /** The cursor stays among what is drawn, also when that becomes less. */
  let chosen = $state.raw<Spot>({ row: 1, col: 0 });
  let cursor = $derived(inside(pic, chosen));
  function cellAt(r: number, col: number): Cell | undefined {
    const row = pic.rows[r];
    return row?.type === 'item' ? stepOf(row.cells, pic.columns[col]) : undefined;
  }
  let seen = $derived(cursor.row >= sight.fromRow && cursor.row < sight.toRow);

  /** Row and column under the pointer; nothing over the heads. */
  function under(e: MouseEvent): Spot | undefined {
    const at = box.getBoundingClientRect();
    const x = e.clientX - at.left - title;
    const y = e.clientY - at.top - head;
    if (x < 0 || y < 0) return undefined;
    const row = Math.floor((y + box.scrollTop) / height);
    const col = Math.floor((x + box.scrollLeft) / width);
    return row < pic.rows.length && col < pic.columns.length ? { row, col } : undefined;
  }
  let hover = $state('');
  function point(e: PointerEvent) {
    const at = under(e);
    hover = at && pic.rows[at.row].type === 'item' ? name(at.row, at.col) : '';
  }
  function choose(e: MouseEvent) {
    const at = under(e);
    if (!at || pic.rows[at.row].type !== 'item') return;
    chosen = at;
    const c = cellAt(at.row, at.col);
    if (c) openCell(pic.rows[at.row], c);
  }

  function reveal() {
    const y = cursor.row * height;
    if (y < box.scrollTop) box.scrollTop = y;
    else if (y + height > box.scrollTop + roomY - head) box.scrollTop = y + height - roomY + head;
    const x = cursor.col * width;
    if (x < box.scrollLeft) box.scrollLeft = x;
    else if (x + width > box.scrollLeft + roomX - title - 60)
      box.scrollLeft = x + width - roomX + title + 60;
  }

  function keys(e: KeyboardEvent) {
    const page = Math.max(1, Math.floor((roomY - head) / height) - 1);
    const to = moved(pic, cursor, e.key, e.ctrlKey, page);
    if (to) chosen = to;
    else if (e.key === 'Enter' || e.key === ' ') {
      const c = cellAt(cursor.row, cursor.col);
      if (c) openCell(pic.rows[cursor.row], c);
      else toggle(pic.rows[cursor.row]);
    } else if (e.key === 'n') return next();
    else return;
    e.preventDefault();
    reveal();
  }

  function next() {
    const to = wanted(pic, cursor);
    if (!to) return;
    chosen = to;
    openCell(pic.rows[to.row], to.cell);
    reveal();
  }

  function name(r: number, col: number): string {
    const line = byId.get(plan.lines[pic.columns[col]]);
    const c = cellAt(r, col);
    const says = c
      ? `${stepWords[c.kind]?.[0] ?? c.kind}. ${reasons[c.reason] ?? ''}`
      : 'nothing to do.';
    return `${pic.rows[r].title}, ${line?.code}: ${says}`;
  }
</script>

<svelte:window
  onkeydown={(e) => {
    if (e.key === 'n' && !(e.target as Element).closest('input, textarea, select, [role=grid]'))
      next();
  }}
/>

<div
  class="plan"
  role="grid"
  aria-label="Plan: items down, sections across"
  aria-rowcount={pic.rows.length}
  aria-colcount={pic.columns.length}
  aria-activedescendant={seen ? 'plan-at' : undefined}
  title={hover || undefined}
  tabindex="0"
  bind:this={box}
  bind:clientHeight={roomY}
  bind:clientWidth={roomX}
  onscroll={() => ((top = box.scrollTop), (leftEdge = box.scrollLeft))}
  onkeydown={keys}
  onclick={choose}
  onpointermove={point}
  onpointerleave={() => (hover = '')}
>
  <div
    class="sheet"
    role="presentation"
    style="width:{title + pic.columns.length * width + 52}px;height:{pic.rows.length * height +
      head}px"
  >
    <div class="heads" role="row">
      <span class="corner" role="columnheader" style="width:{title}px">
        {#if pic.idle}<span class="faint"
            >{pic.idle}
            {pic.idle === 1 ? 'section' : 'sections'} with nothing to do, not drawn</span
          >{/if}
      </span>
      {#each pic.columns.slice(sight.fromCol, sight.toCol) as line, i (line)}
        {@const l = byId.get(plan.lines[line])}
        <span
          class="c fig"
          role="columnheader"
          style="left:{title + (sight.fromCol + i) * width}px;width:{width}px"
          title="{l?.code} · {l?.campus} · {l?.instructors}"><span>{l?.code}</span></span
        >
      {/each}
    </div>
    {#each pic.rows.slice(sight.fromRow, sight.toRow) as row, i (sight.fromRow + i)}
      {@const r = sight.fromRow + i}
      <div
        class="row {row.type}"
        role="row"
        aria-rowindex={r + 1}
        style="top:{r * height + head}px"
      >
        <span
          id={r === cursor.row && row.type !== 'item' ? 'plan-at' : undefined}
          class="i cut"
          role="rowheader"
          style="width:{title}px"
          class:on={row.type === 'item' && plan.rows[row.row].key === atItem}
        >
          {#if row.type === 'fold' && row.key}
            <button tabindex="-1" onclick={() => toggle(row)}
              >{open.has(row.key) ? '▾' : '▸'} {row.title}</button
            >
          {:else}{row.title}{/if}
        </span>
        {#if row.type !== 'module'}
          <span
            class="ruled"
            style="left:{title}px;width:{pic.columns.length *
              width}px;background-size:{width}px 100%"
          ></span>
        {/if}
        {#if row.type === 'item'}
          {#if r === cursor.row}
            <span
              id="plan-at"
              class="s cursor"
              role="gridcell"
              aria-colindex={cursor.col + 1}
              aria-label={name(r, cursor.col)}
              style="left:{title + cursor.col * width}px;width:{width}px"
            ></span>
          {/if}
          {#if plan.rows[row.row].key === atItem && atCol >= 0}
            <span class="s at" style="left:{title + atCol * width}px;width:{width}px"></span>
          {/if}
          <span class="n fig" style="left:{title + pic.columns.length * width}px"
            >{moving(row.cells) || ''}</span
          >
        {/if}
      </div>
    {/each}
    <div
      class="marks"
      style="left:{title + sight.fromCol * width}px;top:{sight.fromRow * height + head}px"
    >
      <PlanMarks {pic} {sight} {width} {height} />
    </div>
  </div>
</div>

<style>
  .plan {
    overflow: auto;
    min-height: 0;
    flex: 1;
    font-size: 13px;
  }
  .plan:focus-visible {
    outline: none;
  }
  .sheet {
    position: relative;
    min-width: 100%;
  }
  .heads {
    position: sticky;
    top: 0;
    height: 62px;
    background: var(--ground);
    border-bottom: 1px solid var(--line);
    z-index: 3;
  }
  .corner {
    position: sticky;
    left: 0;
    display: flex;
    align-items: end;
    height: 61px;
    background: var(--ground);
    z-index: 4;
    padding: 0 8px 4px 0;
    font-size: 12px;
    line-height: 15px;
  }
  .c {
    position: absolute;
    bottom: 4px;
    display: flex;
    justify-content: center;
    color: var(--ink-2);
  }
  .c span {
    writing-mode: vertical-rl;
    transform: rotate(180deg);
    font-size: 12px;
  }
  .row {
    position: absolute;
    left: 0;
    right: 0;
    height: 23px;
  }
  .i {
    position: sticky;
    left: 0;
    display: inline-block;
    height: 23px;
    line-height: 23px;
    padding: 0 8px 0 11px;
    background: var(--ground);
    z-index: 2;
  }
  .module {
    border-top: 1px solid var(--line);
    background: var(--paper);
  }
  .module .i {
    font-weight: 650;
    padding-left: 0;
    background: var(--paper);
  }
  .fold .i {
    color: var(--ink-3);
  }
  .fold button {
    cursor: pointer;
  }
  .i.on {
    background: var(--do-soft);
  }
  .s {
    position: absolute;
    top: 0;
    height: 23px;
  }
  .marks {
    position: absolute;
    pointer-events: none;
  }
  .ruled {
    position: absolute;
    top: 0;
    bottom: 0;
    background-image: linear-gradient(to right, var(--line-soft) 1px, transparent 1px);
  }
  .s.at {
    outline: 2px solid var(--do);
    outline-offset: -2px;
    background: var(--do-soft);
  }
  .plan:focus-visible .s.cursor {
    outline: 2px solid var(--do);
    outline-offset: -2px;
  }
  .n {
    position: absolute;
    width: 44px;
    text-align: right;
    line-height: 23px;
    color: var(--ink-2);
  }
</style>
