import type { Kind, Schemas } from '../api/client';
import { kind as kindWord, many } from '../marks/words';

export type Row = Schemas['ForecastRow'];
export type What = Schemas['ChosenParts']['what'];

/** What a delivery is to bring, and how, while it is being said. */
export interface Order {
  what: What;
  kinds: readonly Kind[];
  items: readonly string[];
  withoutKinds: readonly Kind[];
  without: readonly string[];
  arrival: NonNullable<Schemas['Chosen']['arrival']>;
  dates: NonNullable<Schemas['Chosen']['dates']>;
  emptied: NonNullable<Schemas['Chosen']['emptied']>;
  onto: NonNullable<Schemas['Chosen']['onto']>;
  /** How many sections are written at the same time at most; 0: as many as can be. */
  atOnce: '0' | '1' | '3' | '10';
  /** Where chosen items go: OWN is where the version has them. */
  into: 'OWN' | 'MODULE' | 'NTH';
  module: string;
  side: NonNullable<Schemas['Place']['side']>;
  neighbour: string;
  clash: Schemas['Chosen']['clash'];
  twin: Schemas['Chosen']['twin'];
}

export const usual: Order = {
  what: 'EVERYTHING',
  kinds: [],
  items: [],
  withoutKinds: [],
  without: [],
  arrival: 'AS_IN_MASTER',
  dates: 'ALONG',
  emptied: 'ASK',
  onto: 'UP_TO_DATE',
  atOnce: '0',
  into: 'OWN',
  module: '',
  side: 'END',
  neighbour: '',
  clash: 'KEEP_SECTION',
  twin: 'ADOPT',
};

/** The words of each choice, in the order in which they are offered. */
export const words = {
  what: {
    EVERYTHING: 'everything',
    CHANGED: 'what changed since each section’s version',
    SOME: 'what is ticked below',
  },
  arrival: {
    AS_IN_MASTER: 'shown as in the master',
    HIDDEN: 'hidden on arrival',
    SHOWN: 'shown on arrival',
  },
  dates: {
    ALONG: 'dates taken along',
    LEFT: 'dates there left as they are',
    AWAY: 'dates there left, new items without',
  },
  onto: {
    UP_TO_DATE: 'up to date in place',
    CLEAN: 'cleared first, then started clean',
    IF_EMPTY: 'only once the shell is empty',
  },
  atOnce: {
    '0': 'as quickly as can be',
    '1': 'one section at a time',
    '3': 'at most 3 sections at once',
    '10': 'at most 10 sections at once',
  },
  into: {
    OWN: 'into their places',
    MODULE: 'into the module',
    NTH: 'into module number',
  },
  side: {
    END: 'at its end',
    BEGINNING: 'at its beginning',
    BEFORE: 'before',
    AFTER: 'after',
  },
  emptied: { ASK: 'is asked about', ANEW: 'is filled anew', LEAVE: 'stays empty' },
  clash: {
    KEEP_SECTION: 'the section’s stays',
    TAKE_VERSION: 'the version’s is taken',
    PUT_BACK: 'the version’s is taken, and all that was changed put back',
  },
  twin: { ADOPT: 'is adopted', ADD: 'gets ours beside it', LEAVE: 'is left alone' },
} as const;

const lists = ['kinds', 'items', 'withoutKinds', 'without'] as const;
const single = [
  'what',
  'into',
  'side',
  'arrival',
  'dates',
  'emptied',
  'onto',
  'atOnce',
  'clash',
  'twin',
] as const;
const texts = ['module', 'neighbour'] as const;

/** The order that an address says. */
export function read(query: URLSearchParams): Order {
  const order: Record<string, unknown> = { ...usual };
  for (const name of single) {
    const said = query.get(name);
    if (said && said in words[name]) order[name] = said;
  }
  for (const name of lists) order[name] = query.get(name)?.split(',').filter(Boolean) ?? [];
  for (const name of texts) order[name] = query.get(name) ?? '';
  return order as unknown as Order;
}

/** What an address says of an order; what is usual is not said. */
export function address(order: Order): Record<string, string> {
  const said: Record<string, string> = {};
  for (const name of single) said[name] = order[name] === usual[name] ? '' : order[name];
  for (const name of lists) said[name] = order[name].join(',');
  for (const name of texts) said[name] = order[name];
  return said;
}

export function parts(o: Order): Schemas['ChosenParts'] {
  return {
    what: o.what,
    kinds: [...o.kinds],
    items: [...o.items],
    withoutKinds: [...o.withoutKinds],
    without: [...o.without],
    into: into(o),
  };
}

/** The named place; none where items go to their own. */
function into(o: Order): Schemas['Place'] | undefined {
  if (o.what !== 'SOME' || o.into === 'OWN' || !o.module) return undefined;
  const nth = o.into === 'NTH' ? Number(o.module) || 0 : 0;
  const beside = o.side === 'BEFORE' || o.side === 'AFTER';
  return { module: nth ? '' : o.module, nth, side: o.side, neighbour: beside ? o.neighbour : '' };
}

/** A named place as an order says it. */
function placed(
  p: Schemas['Place'] | undefined,
): Pick<Order, 'into' | 'module' | 'side' | 'neighbour'> {
  const { into, module, side, neighbour } = usual;
  if (!p) return { into, module, side, neighbour };
  return {
    into: p.nth ? 'NTH' : 'MODULE',
    module: p.nth ? String(p.nth) : p.module,
    side: p.side,
    neighbour: p.neighbour,
  };
}

/** How an order goes about it, without what it brings. */
export function manner(o: Order): Schemas['Chosen'] {
  const { clash, twin, arrival, dates, emptied, onto } = o;
  return { clash, twin, arrival, dates, emptied, onto, atOnce: Number(o.atOnce) || undefined };
}

export function chosen(o: Order): Schemas['Chosen'] {
  return { ...manner(o), parts: parts(o) };
}

/** The offered number that comes next to one that was chosen. */
function offered(atOnce: number | undefined): Order['atOnce'] {
  const all = Object.keys(words.atOnce) as Order['atOnce'][];
  return atOnce ? (all.find((n) => Number(n) >= atOnce) ?? '0') : '0';
}

/** An order as a delivery has it. */
export function ofDelivery(d: Schemas['DeliveryDetail']): Order {
  const { clash, twin, arrival, dates, emptied, onto, atOnce } = d.delivery;
  const p = d.parts;
  return {
    ...{ clash, twin, arrival, dates, emptied, onto, atOnce: offered(atOnce), what: p.what },
    kinds: p.kinds ?? [],
    items: p.items ?? [],
    withoutKinds: p.withoutKinds ?? [],
    without: p.without ?? [],
    ...placed(p.into),
  };
}

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
  if (tick === 'on' || tick === 'along') {
    const covered =
      tick === 'along' ||
      o.what !== 'SOME' ||
      up.some((k) => o.items.includes(k)) ||
      o.kinds.includes(row.kind);
    return {
      ...o,
      items: rest(o.items),
      without: covered ? [...rest(o.without), row.key] : rest(o.without),
    };
  }
  const back = {
    ...o,
    without: rest(o.without).filter((k) => !up.includes(k)),
    withoutKinds: o.withoutKinds.filter((k) => k !== row.kind),
  };
  const wasOut = back.without.length < o.without.length || row.leftOut;
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

/** What an order says otherwise than a recipe, in the words of its choices. */
export function differs(o: Order, recipe: Schemas['Chosen']): string[] {
  const of = ofChosen(recipe);
  const names: Record<(typeof single)[number], string> = {
    what: 'what is brought',
    into: 'where it goes',
    side: 'where in the module',
    arrival: 'how it arrives',
    dates: 'dates',
    emptied: 'emptied shells',
    onto: 'what the shells are like',
    atOnce: 'how many at once',
    clash: 'clashes',
    twin: 'twins',
  };
  const all: string[] = single.filter((n) => o[n] !== of[n]).map((n) => names[n]);
  const same = (n: (typeof lists)[number]) => [...o[n]].sort().join() === [...of[n]].sort().join();
  if (texts.some((n) => o[n] !== of[n])) all.push('the named place');
  if (!same('items') || !same('kinds')) all.push('chosen items');
  if (!same('without') || !same('withoutKinds')) all.push('what is left out');
  return all;
}

/** An order as a recipe has it. */
export function ofChosen(c: Schemas['Chosen']): Order {
  const p = c.parts;
  return {
    clash: c.clash,
    twin: c.twin,
    arrival: c.arrival ?? usual.arrival,
    dates: c.dates ?? usual.dates,
    emptied: c.emptied ?? usual.emptied,
    onto: c.onto ?? usual.onto,
    atOnce: offered(c.atOnce),
    what: p?.what ?? usual.what,
    kinds: p?.kinds ?? [],
    items: p?.items ?? [],
    withoutKinds: p?.withoutKinds ?? [],
    without: p?.without ?? [],
    ...placed(p?.into),
  };
}
