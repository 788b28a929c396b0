import type { Schemas } from '../api/client';

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
  get kind(): string {
    return this.code.kind;
  }
  get reason(): string {
    return this.code.reason;
  }
  get moves(): boolean {
    return this.code.moves;
  }
}

/** The steps of each row, in the order of the lines; made once for a plan. */
export function cellsByRow(plan: Schemas['DeliveryPlan']): Cell[][] {
  const rows: Cell[][] = plan.rows.map(() => []);
  plan.steps.forEach((steps, line) => {
    for (let i = 0; i < steps.length; i += 2)
      rows[steps[i]].push(new Cell(steps[i], line, plan.codes[steps[i + 1]]));
  });
  return rows;
}

/** A line of the plan picture. */
export type Row =
  | { type: 'module'; title: string; key: string }
  | { type: 'item'; row: number; title: string; kind: string; cells: Cell[]; moving: number }
  | { type: 'fold'; title: string; key: string };

/** Lines with something to do, and which columns have anything at all. */
export interface Picture {
  rows: Row[];
  columns: number[];
  idle: number;
}

/**
 * Items under their modules; items that are the same everywhere fold into one line per module, modules
 * with nothing to do into one line at the end. Sections with nothing to do are left out.
 */
export function picture(
  plan: Schemas['DeliveryPlan'],
  all: Cell[][],
  open: ReadonlySet<string>,
  only: string = '',
): Picture {
  const byRow = only ? all.map((cells) => cells.filter((c) => c.kind === only)) : all;
  const used = new Uint8Array(plan.lines.length);
  for (const cells of byRow) for (const c of cells) used[c.line] = 1;
  const title = new Map(plan.rows.map((r) => [r.key, r]));
  const groups = new Map<string, { title: string; rows: number[] }>();
  plan.rows.forEach((r, i) => {
    const home = r.kind === 'MODULE' ? r.key : r.inVersion ? (r.parent ?? '') : '-';
    const name =
      home === '-' ? 'No longer in the version' : home ? title.get(home)!.title : 'At the top';
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
    for (const r of shown) {
      const cells = byRow[r];
      rows.push({
        type: 'item',
        row: r,
        title: plan.rows[r].title,
        kind: plan.rows[r].kind,
        cells,
        moving: cells.reduce((n, c) => n + (c.moves ? 1 : 0), 0),
      });
    }
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
  const columns = plan.lines.map((_, i) => i).filter((i) => used[i]);
  return { rows, columns, idle: plan.lines.length - columns.length };
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

/** Steps by kind, over all sections. */
export function totals(lines: Schemas['DeliveryLine'][]): Record<string, number> {
  const all: Record<string, number> = {};
  for (const l of lines)
    for (const [kind, n] of Object.entries(l.counts)) all[kind] = (all[kind] ?? 0) + n;
  return all;
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

/** The words of a text, without its marking. */
export function words(html: string): string {
  const doc = new DOMParser().parseFromString(
    html.replace(/<\/(p|li|h\d|tr|div)>/g, '$& '),
    'text/html',
  );
  return (doc.body.textContent ?? '').replace(/\s+/g, ' ').trim();
}
