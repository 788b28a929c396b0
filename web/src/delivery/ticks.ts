import type { Kind, Schemas } from '../api/client';
import { kind as kindWord, many } from '../marks/words';
import type { Order } from './order';

export type Row = Schemas['ForecastRow'];
export type Tick = 'on' | 'some' | 'off' | 'along';

/** How each row is ticked; a module as what stands in it. */
export function ticks(rows: readonly Row[]): Map<string, Tick> {
  const all = new Map<string, Tick>();
  const inside = new Map<string, { on: number; rows: number }>();
  const parent = new Map(rows.map((r) => [r.key, r.parent]));
  for (const r of rows) {
    if (r.kind === 'MODULE' || !r.inVersion) continue;
    const tick = r.chosen ? 'on' : r.along ? 'along' : 'off';
    all.set(r.key, tick);
    for (let up = r.parent; up; up = parent.get(up)) {
      const m = inside.get(up) ?? { on: 0, rows: 0 };
      inside.set(up, { on: m.on + (tick === 'on' ? 1 : 0), rows: m.rows + 1 });
    }
  }
  for (const [key, m] of inside) all.set(key, !m.on ? 'off' : m.on === m.rows ? 'on' : 'some');
  return all;
}

function above(rows: readonly Row[], key: string): string[] {
  const parent = new Map(rows.map((r) => [r.key, r.parent]));
  const up: string[] = [];
  for (let k = parent.get(key); k; k = parent.get(k)) up.push(k);
  return up;
}

function below(rows: readonly Row[], key: string): Set<string> {
  const found = new Set([key]);
  for (const r of rows) if (r.parent && found.has(r.parent)) found.add(r.key);
  return found;
}

/** The order after a row was ticked or unticked, or left out though it would come along; a module
 * stands for all in it. */
export function toggled(o: Order, rows: readonly Row[], row: Row, tick: Tick): Order {
  const under = below(rows, row.key);
  const up = above(rows, row.key);
  const rest = (keys: readonly string[]) => keys.filter((k) => !under.has(k));
  const named =
    o.titles.length > 0 ||
    o.items.some((k) => under.has(k) || up.includes(k)) ||
    rows.some((r) => under.has(r.key) && o.kinds.includes(r.kind));
  // The rows may still be those of another choice, in which it was ticked.
  const stale = o.what === 'SOME' && tick === 'on' && !named;
  if ((tick === 'on' && !stale) || tick === 'along') {
    const covered =
      tick === 'along' ||
      o.what !== 'SOME' ||
      up.some((k) => o.items.includes(k)) ||
      o.kinds.includes(row.kind) ||
      (o.titles.length > 0 && !o.items.some((k) => under.has(k)));
    return {
      ...o,
      items: rest(o.items),
      without: covered ? [...rest(o.without), row.key] : rest(o.without),
    };
  }
  const kinds = o.withoutKinds.filter((k) => k !== row.kind);
  const byTitle =
    o.withoutTitles.length > 0 && row.leftOut && kinds.length === o.withoutKinds.length;
  const others = byTitle
    ? rows.filter((r) => r.leftOut && r.inVersion && !up.includes(r.key) && !kinds.includes(r.kind))
    : [];
  const back = {
    ...o,
    without: rest([...new Set([...o.without, ...others.map((r) => r.key)])]).filter(
      (k) => !up.includes(k),
    ),
    withoutKinds: kinds,
    withoutTitles: byTitle ? [] : o.withoutTitles,
  };
  const wasOut = row.leftOut || back.without.length < o.without.length;
  if (o.what === 'EVERYTHING' || (o.what === 'CHANGED' && wasOut)) return back;
  const before =
    o.what === 'SOME' ? o.items : rows.filter((r) => r.chosen && r.inVersion).map((r) => r.key);
  return { ...back, what: 'SOME', items: [...rest(before), row.key] };
}

/** The order after a kind was ticked or unticked. */
export function kindToggled(o: Order, k: Kind, on: boolean): Order {
  const without = o.withoutKinds.filter((x) => x !== k);
  if (o.what === 'SOME')
    return {
      ...o,
      withoutKinds: without,
      kinds: on ? o.kinds.filter((x) => x !== k) : [...o.kinds, k],
    };
  return { ...o, withoutKinds: on ? [...without, k] : without };
}

const because: Record<Schemas['NeededBy']['why'], string> = {
  BANK: 'draws from it',
  RUBRIC: 'is graded by it',
  CATEGORY: 'counts into it',
  GROUPS: 'is done by its groups',
  OUTCOME: 'shows it',
  FILE: 'uses it',
  NOTE: 'has it beside it',
  CONDITION: 'opens after it',
  ENTRY: 'leads to it',
  LINK: 'links to it',
};

export function why(b: Schemas['NeededBy']): string {
  return `${b.title} ${because[b.why]}`;
}

/** What is said of a row beside its title. */
export function said(r: Row, o: Order): string {
  if (!r.inVersion) return 'no longer meant for them';
  if (r.forNobody) return 'stays in the master';
  if (r.missed) return `left out, though ${why(r.missed)}`;
  if (r.leftOut)
    return o.withoutKinds.includes(r.kind) ? `left out: ${kindWord(r.kind, 2)}` : 'left out';
  if (r.because && !r.chosen) return why(r.because);
  if (!r.chosen) {
    if (o.what !== 'CHANGED') return '';
    return r.rule === 'STARTER' ? 'starter: the section’s own' : 'nothing new';
  }
  const { ADD: added, UPDATE: updated, CLASH: clashes, KEEP: kept } = r.steps;
  return [
    added ? (updated || clashes || kept ? `new in ${added}` : 'new') : '',
    updated ? many(updated, 'update') : '',
    clashes ? many(clashes, 'clash', 'clashes') : '',
    kept ? `${kept} kept` : '',
  ]
    .filter(Boolean)
    .join(', ');
}
