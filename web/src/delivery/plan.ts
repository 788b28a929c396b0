import { counted, type Reason, type Schemas, type StepKind } from '../api/client';
import { along } from '../lists/along';
import { exact, many } from '../marks/words';
import { path, stepShape, type Layer } from '../marks/stepShapes';

/**
 * A step that is not "same": its row and line, by their place in the plan's lists. A plan may have
 * hundreds of thousands, so what they have in common is not copied.
 */
export class Cell {
  constructor(
    readonly row: number,
    readonly line: number,
    private readonly code: Schemas['StepCode'],
  ) {}
  get kind(): StepKind {
    return this.code.kind;
  }
  get reason(): Reason {
    return this.code.reason;
  }
  get moves(): boolean {
    return this.code.moves;
  }
}

/** Some steps: those of each row in the order of the lines, and which lines have any. */
class Some {
  readonly rows: Cell[][];
  readonly used: Uint8Array;
  constructor(plan: Schemas['DeliveryPlan']) {
    this.rows = plan.rows.map(() => []);
    this.used = new Uint8Array(plan.lines.length);
  }
  add(cell: Cell) {
    this.rows[cell.row].push(cell);
    this.used[cell.line] = 1;
  }
}

/** The steps, by kind and all of them under no kind; made once for a plan. */
export type Steps = Map<StepKind | '', Some>;

export function stepsByKind(plan: Schemas['DeliveryPlan']): Steps {
  const all = new Some(plan);
  const steps: Steps = new Map([['', all]]);
  const ofCode = plan.codes.map(({ kind }) => {
    const alike = steps.get(kind) ?? new Some(plan);
    steps.set(kind, alike);
    return alike;
  });
  plan.steps.forEach((of, line) => {
    for (let i = 0; i < of.length; i += 2) {
      const cell = new Cell(of[i], line, plan.codes[of[i + 1]]);
      all.add(cell);
      ofCode[of[i + 1]].add(cell);
    }
  });
  return steps;
}

/** A line of the plan picture. */
export type Row =
  | { type: 'module'; title: string; key: string }
  | { type: 'item'; row: number; title: string; cells: Cell[] }
  | { type: 'fold'; title: string; key: string };

/** Lines with something to do, and which columns have anything at all. */
export interface Picture {
  rows: Row[];
  /** Lines that are drawn, from left to right. */
  columns: number[];
  /** The column of a line; -1 if it is not drawn. */
  columnOf: Int32Array;
  idle: number;
}

/**
 * Items under their modules; items that are the same everywhere fold into one line per module, modules
 * with nothing to do into one line at the end. Sections with nothing to do are left out.
 */
export function picture(
  plan: Schemas['DeliveryPlan'],
  steps: Steps,
  open: ReadonlySet<string>,
  only: StepKind | '' = '',
): Picture {
  const { rows: byRow, used } = steps.get(only) ?? new Some(plan);
  const title = new Map(plan.rows.map((r) => [r.key, r]));
  const groups = new Map<string, { title: string; rows: number[] }>();
  plan.rows.forEach((r, i) => {
    const home = r.kind === 'MODULE' ? r.key : r.inVersion ? (r.parent ?? '') : '-';
    const name = home === '-' ? 'Not in the version' : home ? title.get(home)!.title : 'At the top';
    const g = groups.get(home) ?? { title: name, rows: [] };
    g.rows.push(i);
    groups.set(home, g);
  });
  const rows: Row[] = [];
  let quiet = 0;
  for (const [key, g] of groups) {
    const busy = g.rows.filter((r) => byRow[r].length);
    if (!busy.length) {
      quiet++;
      continue;
    }
    rows.push({ type: 'module', title: g.title, key });
    const shown = open.has(key) ? g.rows : busy;
    for (const r of shown)
      rows.push({ type: 'item', row: r, title: plan.rows[r].title, cells: byRow[r] });
    const same = g.rows.length - busy.length;
    if (same)
      rows.push({
        type: 'fold',
        key,
        title: open.has(key)
          ? `${same} the same in all, fold them`
          : `${same} more the same in all`,
      });
  }
  if (quiet)
    rows.push({
      type: 'fold',
      key: '',
      title: quiet === 1 ? '1 module with nothing to do' : `${quiet} modules with nothing to do`,
    });
  const columns: number[] = [];
  const columnOf = new Int32Array(plan.lines.length).fill(-1);
  used.forEach((any, line) => {
    if (any) columnOf[line] = columns.push(line) - 1;
  });
  return { rows, columns, columnOf, idle: plan.lines.length - columns.length };
}

/** The step of a line among those of a row. */
export function stepOf(cells: Cell[], line: number): Cell | undefined {
  const c = cells[first(cells, line)];
  return c?.line === line ? c : undefined;
}

/** How many of these change anything in a shell. */
export function moving(cells: Cell[]): number {
  return cells.reduce((n, c) => n + (c.moves ? 1 : 0), 0);
}

/** What is seen of a picture: rows and columns from, and up to but not with. */
export interface Sight {
  fromRow: number;
  toRow: number;
  fromCol: number;
  toCol: number;
}

/**
 * The marks of all steps in sight, as one path for each colour of each kind: thousands of marks are
 * drawn as quickly as a few.
 *
 * @param width of a column, in pixels
 * @param height of a row
 */
export function marks(
  pic: Picture,
  sight: Sight,
  width: number,
  height: number,
): { layer: Layer; d: string }[] {
  const paths = new Map<Layer, string[]>();
  const left = (width - 12) / 2;
  const top = (height - 12) / 2;
  const from = pic.columns[sight.fromCol];
  const to = pic.columns[sight.toCol - 1];
  pic.rows.slice(sight.fromRow, sight.toRow).forEach((row, r) => {
    if (row.type !== 'item') return;
    for (const c of within(row.cells, from, to)) {
      const x = (pic.columnOf[c.line] - sight.fromCol) * width + left;
      for (const layer of stepShape(c.kind)) {
        const of = paths.get(layer) ?? [];
        if (!of.length) paths.set(layer, of);
        of.push(path(layer, x, r * height + top));
      }
    }
  });
  return [...paths].map(([layer, of]) => ({ layer, d: of.join('') }));
}

/** Those of a row's steps that stand from one line to another. */
export function within(cells: Cell[], from: number, to: number): Cell[] {
  return cells.slice(first(cells, from), first(cells, to + 1));
}

/** Place of the first step of this line or a later one. */
function first(cells: Cell[], line: number): number {
  let low = 0;
  let high = cells.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (cells[middle].line < line) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** A row and a column of a picture. */
export interface Spot {
  row: number;
  col: number;
}

/** The nearest spot that the picture has, after it became smaller. */
export function inside(pic: Picture, { row, col }: Spot): Spot {
  return {
    row: Math.max(0, Math.min(row, pic.rows.length - 1)),
    col: Math.max(0, Math.min(col, pic.columns.length - 1)),
  };
}

/** Where a key leads from a spot, so many rows in sight; nothing if the key does not move. */
export function moved(
  pic: Picture,
  from: Spot,
  key: string,
  ctrl: boolean,
  page: number,
): Spot | undefined {
  const { row, col } = from;
  const last = pic.columns.length - 1;
  const to = { ArrowRight: col + 1, ArrowLeft: col - 1, Home: 0, End: last }[key];
  if (to !== undefined && !ctrl) return inside(pic, { row, col: to });
  const up = along(key, row, pic.rows.length, page);
  return up === undefined ? undefined : { row: up, col };
}

const asks: readonly StepKind[] = ['CLASH', 'TWIN', 'BLOCKED'];

/** The next step that a person may decide, from the top again after the last. */
export function wanted(pic: Picture, from: Spot): (Spot & { cell: Cell }) | undefined {
  for (let i = 0; i <= pic.rows.length; i++) {
    const at = (from.row + i) % pic.rows.length;
    const row = pic.rows[at];
    if (row?.type !== 'item') continue;
    const cell = row.cells.find(
      (c) =>
        asks.includes(c.kind) &&
        c.reason !== 'NO_WEEK' &&
        c.reason !== 'NO_PLACE' &&
        (i || pic.columnOf[c.line] > from.col),
    );
    if (cell) return { row: at, col: pic.columnOf[cell.line], cell };
  }
  return undefined;
}

/** Steps of one item that are out of the ordinary, alike in some sections. */
export interface Exception {
  title: string;
  kind: StepKind;
  reason: Reason;
  codes: string[];
}

const ordinary: readonly StepKind[] = ['ADD', 'UPDATE', 'SAME'];

/** All that a person may want to look at, in the order of the items. */
export function exceptions(
  plan: Schemas['DeliveryPlan'],
  lines: readonly Schemas['DeliveryLine'][],
): Exception[] {
  const code = new Map(lines.map((l) => [l.id, l.code]));
  const all = new Map<string, Exception & { row: number }>();
  plan.steps.forEach((of, line) => {
    for (let i = 0; i < of.length; i += 2) {
      const { kind, reason } = plan.codes[of[i + 1]];
      if (ordinary.includes(kind)) continue;
      const name = `${of[i]} ${of[i + 1]}`;
      const one = all.get(name) ?? {
        row: of[i],
        title: plan.rows[of[i]].title,
        kind,
        reason,
        codes: [],
      };
      all.set(name, one);
      one.codes.push(code.get(plan.lines[line]) ?? '');
    }
  });
  return [...all.values()].sort((a, b) => a.row - b.row);
}

/** Steps by kind, over all sections. */
export function totals(lines: Schemas['DeliveryLine'][]): Partial<Record<StepKind, number>> {
  const all: Partial<Record<StepKind, number>> = {};
  for (const l of lines)
    for (const [kind, n] of counted<StepKind>(l.counts)) all[kind] = (all[kind] ?? 0) + n;
  return all;
}

/** What a run is called, from how far it is. */
export function head(
  d: Schemas['DeliverySummary'],
  n: { all: number; done: number; need: number; notYet: number },
): string {
  const what = d.edit ?? `${d.masterCode}, version ${d.number}`;
  const far = `${n.done} of ${many(n.all, 'section')} done`;
  if (d.state === 'SCHEDULED') return `${what}, begins ${exact(d.beginsAt ?? '')}`;
  if (d.state === 'RUNNING')
    return `${d.takesBack ? 'Taking back: ' : d.edit ? '' : 'Delivering '}${what}: ${far}`;
  if (d.state === 'STOPPED') return `Stopped: ${what}, ${far}`;
  const open = [
    n.need && `${n.need} ${n.need === 1 ? 'needs' : 'need'} you`,
    n.notYet && `${n.notYet} not yet`,
  ].filter(Boolean);
  if (open.length) return `${what}: ${far}, ${open.join(', ')}`;
  if (d.takesBack) return `Taken back: ${what}, in ${many(n.all, 'section')}`;
  return d.edit
    ? `Done: ${what}, in ${many(n.all, 'section')}`
    : `Delivered: ${what}, to ${many(n.all, 'section')}`;
}

/** Seconds left, from what is done since the start; nothing before the first is done. */
export function left(started: string, done: number, all: number, now = Date.now()): number | null {
  if (!done || done >= all) return null;
  const seconds = (now - Date.parse(started)) / 1000;
  return Math.round((seconds / done) * (all - done));
}

export function inWords(seconds: number): string {
  if (seconds < 90) return `about ${Math.max(5, Math.ceil(seconds / 5) * 5)} seconds left`;
  if (seconds < 5400) return `about ${Math.round(seconds / 60)} minutes left`;
  return `about ${Math.round(seconds / 3600)} hours left`;
}

/** The words of a text, without its marking; paragraphs, headings and points keep their lines. */
export function words(html: string): string {
  const lines = html
    .replace(/\s+/g, ' ')
    .replace(/<br\b[^>]*>|<\/(p|li|h\d|tr|div|blockquote|pre|section|figure|dt|dd)>/gi, '$&\n')
    .replace(/<li\b[^>]*>/gi, '\n$&· ');
  const doc = new DOMParser().parseFromString(lines, 'text/html');
  return (doc.body.textContent ?? '')
    .split('\n')
    .map((l) => l.replace(/\s+/g, ' ').trim())
    .filter(Boolean)
    .join('\n');
}
