<script lang="ts">
  import type { Schemas, StepKind } from '../api/client';
  import { place } from '../frame/place.svelte';
  import { reasons, stepWords } from '../marks/words';
  import PlanHeads from './PlanHeads.svelte';
  import PlanMarks from './PlanMarks.svelte';
  import PlanRow from './PlanRow.svelte';
  import {
    inside,
    moved,
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
  }: { plan: Schemas['DeliveryPlan']; lines: Schemas['DeliveryLine'][]; only: StepKind | '' } =
    $props();

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
    const says = c ? `${stepWords[c.kind][0]}. ${reasons[c.reason]}` : 'nothing to do.';
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
    <PlanHeads {pic} {plan} {byId} {sight} {width} {title} />
    {#each pic.rows.slice(sight.fromRow, sight.toRow) as row, i (sight.fromRow + i)}
      {@const r = sight.fromRow + i}
      <PlanRow
        {row}
        columns={pic.columns.length}
        {width}
        {title}
        index={r}
        top={r * height + head}
        cursor={r === cursor.row ? { col: cursor.col, name: name(r, cursor.col) } : undefined}
        at={row.type === 'item' && plan.rows[row.row].key === atItem ? atCol : undefined}
        open={row.type === 'fold' && open.has(row.key)}
        toggle={() => toggle(row)}
      />
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
  .marks {
    position: absolute;
    pointer-events: none;
  }
</style>
