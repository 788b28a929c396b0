import type { Schemas } from '../api/client';

export type Cell = Schemas['PlanCell'];

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
  open: ReadonlySet<string>,
  only: string = '',
): Picture {
  const byRow = new Map<number, Cell[]>();
  const used = new Set<number>();
  for (const c of plan.cells) {
    if (only && c.kind !== only) continue;
    const cells = byRow.get(c.row);
    if (cells) cells.push(c);
    else byRow.set(c.row, [c]);
    used.add(c.line);
  }
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
    const busy = g.rows.filter((r) => byRow.has(r));
    if (!busy.length) {
      quiet++;
      continue;
    }
    rows.push({ type: 'module', title: g.title, key });
    const shown = open.has(key) ? g.rows : busy;
    for (const r of shown) {
      const cells = (byRow.get(r) ?? []).sort((a, b) => a.line - b.line);
      rows.push({
        type: 'item',
        row: r,
        title: plan.rows[r].title,
        kind: plan.rows[r].kind,
        cells,
        moving: cells.filter((c) => c.moves).length,
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
  const columns = plan.lines.map((_, i) => i).filter((i) => used.has(i));
  return { rows, columns, idle: plan.lines.length - columns.length };
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
