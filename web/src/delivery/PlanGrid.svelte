<script lang="ts">
  import type { Schemas } from '../api/client';
  import StepMark from '../lib/StepMark.svelte';
  import { place } from '../lib/place.svelte';
  import { reasons, stepWords } from '../lib/words';
  import { cellsByRow, picture, within, type Cell, type Row } from './plan';

  let {
    plan,
    lines,
    only,
  }: { plan: Schemas['DeliveryPlan']; lines: Schemas['DeliveryLine'][]; only: string } = $props();

  const height = 23;
  const title = 286;
  let open = $state.raw<ReadonlySet<string>>(new Set());
  let all = $derived(cellsByRow(plan));
  let pic = $derived(picture(plan, all, open, only));
  let width = $derived(pic.columns.length > 40 ? 22 : 36);
  let byId = $derived(new Map(lines.map((l) => [l.id, l])));
  let columnOf = $derived(new Map(pic.columns.map((line, i) => [line, i])));

  let top = $state(0);
  let leftEdge = $state(0);
  let roomY = $state(500);
  let roomX = $state(800);
  let fromRow = $derived(Math.max(0, Math.floor(top / height) - 6));
  let toRow = $derived(Math.min(pic.rows.length, Math.ceil((top + roomY) / height) + 6));
  let fromCol = $derived(Math.max(0, Math.floor(leftEdge / width) - 4));
  let toCol = $derived(
    Math.min(pic.columns.length, Math.ceil((leftEdge + roomX - title) / width) + 4),
  );
  let box: HTMLElement;

  let atLine = $derived(place.get('line'));
  let atItem = $derived(place.get('item'));

  function openCell(row: Row, c: Cell) {
    if (row.type === 'item') place.set({ line: plan.lines[c.line], item: plan.rows[row.row].key });
  }

  function toggle(row: Row) {
    if (row.type !== 'fold' || !row.key) return;
    const next = new Set(open);
    if (!next.delete(row.key)) next.add(row.key);
    open = next;
  }

  /** The cursor: a row and a column among those drawn. */
  let cursor = $state({ row: 1, col: 0 });
  function cellAt(r: number, c: number): Cell | undefined {
    const row = pic.rows[r];
    return row?.type === 'item' ? row.cells.find((x) => columnOf.get(x.line) === c) : undefined;
  }

  function reveal() {
    const y = cursor.row * height;
    if (y < box.scrollTop) box.scrollTop = y;
    else if (y + height > box.scrollTop + roomY - 62) box.scrollTop = y + height - roomY + 62;
    const x = cursor.col * width;
    if (x < box.scrollLeft) box.scrollLeft = x;
    else if (x + width > box.scrollLeft + roomX - title - 60)
      box.scrollLeft = x + width - roomX + title + 60;
  }

  function keys(e: KeyboardEvent) {
    const { row, col } = cursor;
    if (e.key === 'ArrowDown') cursor = { row: Math.min(row + 1, pic.rows.length - 1), col };
    else if (e.key === 'ArrowUp') cursor = { row: Math.max(row - 1, 0), col };
    else if (e.key === 'ArrowRight')
      cursor = { row, col: Math.min(col + 1, pic.columns.length - 1) };
    else if (e.key === 'ArrowLeft') cursor = { row, col: Math.max(col - 1, 0) };
    else if (e.key === 'Enter' || e.key === ' ') {
      const c = cellAt(row, col);
      if (c) openCell(pic.rows[row], c);
      else toggle(pic.rows[row]);
    } else if (e.key === 'n') next();
    else return;
    e.preventDefault();
    reveal();
  }

  /** On to the next step that a person may want to look at. */
  function next() {
    const wanted = ['CLASH', 'TWIN', 'BLOCKED'];
    const all: { row: number; col: number; cell: Cell }[] = [];
    pic.rows.forEach((r, i) => {
      if (r.type === 'item')
        for (const c of r.cells)
          if (wanted.includes(c.kind)) all.push({ row: i, col: columnOf.get(c.line)!, cell: c });
    });
    if (!all.length) return;
    const after = all.find(
      (x) => x.row > cursor.row || (x.row === cursor.row && x.col > cursor.col),
    );
    const to = after ?? all[0];
    cursor = { row: to.row, col: to.col };
    openCell(pic.rows[to.row], to.cell);
  }

  function name(row: Row, c: Cell): string {
    const line = byId.get(plan.lines[c.line]);
    return `${row.title}, ${line?.code}: ${stepWords[c.kind]?.[0] ?? c.kind}. ${reasons[c.reason] ?? ''}`;
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
  tabindex="0"
  bind:this={box}
  bind:clientHeight={roomY}
  bind:clientWidth={roomX}
  onscroll={() => ((top = box.scrollTop), (leftEdge = box.scrollLeft))}
  onkeydown={keys}
>
  <div
    class="sheet"
    role="presentation"
    style="width:{title + pic.columns.length * width + 52}px;height:{pic.rows.length * height +
      62}px"
  >
    <div class="heads" role="row">
      <span class="corner" role="columnheader" style="width:{title}px">
        {#if pic.idle}<span class="faint"
            >{pic.idle}
            {pic.idle === 1 ? 'section' : 'sections'} with nothing to do, not drawn</span
          >{/if}
      </span>
      {#each pic.columns.slice(fromCol, toCol) as line, i (line)}
        {@const l = byId.get(plan.lines[line])}
        <span
          class="c fig"
          role="columnheader"
          style="left:{title + (fromCol + i) * width}px;width:{width}px"
          title="{l?.code} · {l?.campus} · {l?.instructors}"><span>{l?.code}</span></span
        >
      {/each}
    </div>
    {#each pic.rows.slice(fromRow, toRow) as row, i (fromRow + i)}
      {@const r = fromRow + i}
      <div class="row {row.type}" role="row" aria-rowindex={r + 1} style="top:{r * height + 62}px">
        <span
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
          {#each within(row.cells, pic.columns[fromCol], pic.columns[toCol - 1]) as c (c.line)}
            {@const col = columnOf.get(c.line)!}
            <button
              class="s"
              role="gridcell"
              tabindex="-1"
              class:at={plan.lines[c.line] === atLine && plan.rows[row.row].key === atItem}
              class:cursor={r === cursor.row && col === cursor.col}
              style="left:{title + col * width}px;width:{width}px"
              title={name(row, c)}
              aria-label={name(row, c)}
              onclick={() => ((cursor = { row: r, col }), openCell(row, c))}
              ><StepMark kind={c.kind} /></button
            >
          {/each}
          {#if r === cursor.row && !cellAt(r, cursor.col)}
            <span class="s cursor" style="left:{title + cursor.col * width}px;width:{width}px"
            ></span>
          {/if}
          <span class="n fig" style="left:{title + pic.columns.length * width}px"
            >{row.moving || ''}</span
          >
        {/if}
      </div>
    {/each}
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
    display: grid;
    place-items: center;
    cursor: pointer;
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
