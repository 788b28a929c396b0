import type { Kind, Schemas } from '../api/client';
import { kinds } from '../marks/words';
import { into, own, placed } from './into';
import { words } from './orderWords';

export type What = Schemas['ChosenParts']['what'];

/** What a delivery is to bring, and how, while it is being said. */
export interface Order {
  what: What;
  kinds: readonly Kind[];
  items: readonly string[];
  /** Words with which a word of a title begins. */
  titles: readonly string[];
  withoutKinds: readonly Kind[];
  without: readonly string[];
  withoutTitles: readonly string[];
  /** Whether files attached to items come with them. */
  attachments: 'ALONG' | 'OUT';
  arrival: NonNullable<Schemas['Chosen']['arrival']>;
  dates: NonNullable<Schemas['Chosen']['dates']>;
  emptied: NonNullable<Schemas['Chosen']['emptied']>;
  onto: NonNullable<Schemas['Chosen']['onto']>;
  weeks: NonNullable<Schemas['Chosen']['weeks']>;
  /** How many sections are written at the same time at most; 0: as many as can be. */
  atOnce: '0' | '1' | '3' | '10';
  /** Where chosen items go: OWN is where the version has them. */
  into: 'OWN' | 'MODULE' | 'NTH';
  module: string;
  side: NonNullable<Schemas['Place']['side']>;
  neighbour: string;
  clash: Schemas['Chosen']['clash'];
  twin: Schemas['Chosen']['twin'];
  /** Where a kind is treated otherwise than the rest. */
  clashOf: Readonly<Partial<Record<Kind, Schemas['Chosen']['clash']>>>;
  twinOf: Readonly<Partial<Record<Kind, Schemas['Chosen']['twin']>>>;
}

export const usual: Order = {
  what: 'EVERYTHING',
  kinds: [],
  items: [],
  titles: [],
  withoutKinds: [],
  without: [],
  withoutTitles: [],
  attachments: 'ALONG',
  arrival: 'AS_IN_MASTER',
  dates: 'ALONG',
  emptied: 'ASK',
  onto: 'UP_TO_DATE',
  weeks: 'ADD',
  atOnce: '0',
  ...own,
  clash: 'KEEP_SECTION',
  twin: 'ADOPT',
  clashOf: {},
  twinOf: {},
};

const lists = ['kinds', 'items', 'titles', 'withoutKinds', 'without', 'withoutTitles'] as const;
const single = [
  'what',
  'into',
  'side',
  'arrival',
  'dates',
  'attachments',
  'emptied',
  'onto',
  'weeks',
  'atOnce',
  'clash',
  'twin',
] as const;
const texts = ['module', 'neighbour'] as const;
const byKind = { clashOf: 'clash', twinOf: 'twin' } as const;
const ofKinds = ['clashOf', 'twinOf'] as const;

/** By kinds, as an address says it: PAGE:KEEP,QUIZ:TAKE. */
function kindsSaid(text: string, known: object): Record<string, string> {
  const pairs = text.split(',').map((p) => p.split(':'));
  return Object.fromEntries(pairs.filter(([k, v]) => kinds.includes(k as Kind) && v in known));
}

/** The order that an address says. */
export function read(query: URLSearchParams): Order {
  const order: Record<string, unknown> = { ...usual };
  for (const name of single) {
    const said = query.get(name);
    if (said && said in words[name]) order[name] = said;
  }
  for (const name of lists) order[name] = query.get(name)?.split(',').filter(Boolean) ?? [];
  for (const name of texts) order[name] = query.get(name) ?? '';
  for (const name of ofKinds) order[name] = kindsSaid(query.get(name) ?? '', words[byKind[name]]);
  return order as unknown as Order;
}

/** What an address says of an order; what is usual is not said. */
export function address(order: Order): Record<string, string> {
  const said: Record<string, string> = {};
  for (const name of single) said[name] = order[name] === usual[name] ? '' : order[name];
  for (const name of lists) said[name] = order[name].join(',');
  for (const name of texts) said[name] = order[name];
  for (const name of ofKinds)
    said[name] = Object.entries(order[name])
      .map(([k, v]) => `${k}:${v}`)
      .join(',');
  return said;
}

export function parts(o: Order): Schemas['ChosenParts'] {
  return {
    what: o.what,
    kinds: [...o.kinds],
    items: [...o.items],
    titles: [...o.titles],
    withoutKinds: [...o.withoutKinds],
    without: [...o.without],
    withoutTitles: [...o.withoutTitles],
    withoutAttachments: o.attachments === 'OUT',
    into: into(o),
  };
}

/** How an order goes about it, without what it brings. */
export function manner(o: Order): Schemas['Chosen'] {
  const { clash, twin, arrival, dates, emptied, onto, weeks } = o;
  return {
    clash,
    twin,
    byKind: { clash: { ...o.clashOf }, twin: { ...o.twinOf } },
    arrival,
    dates,
    emptied,
    onto,
    weeks,
    atOnce: Number(o.atOnce) || undefined,
  };
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
  const { clash, twin, byKind, arrival, dates, emptied, onto, weeks, atOnce } = d.delivery;
  const p = d.parts;
  return {
    ...{ clash, twin, arrival, dates, emptied, onto, weeks, atOnce: offered(atOnce), what: p.what },
    ...ofKind(byKind),
    ...ofParts(p),
  };
}

/** Of what is sent and kept by kind, what the order says. */
function ofKind(by: Schemas['ByKind'] | undefined): Pick<Order, 'clashOf' | 'twinOf'> {
  return { clashOf: by?.clash ?? {}, twinOf: by?.twin ?? {} };
}

/** Of what is sent and kept, what the order says. */
function ofParts(p: Schemas['ChosenParts'] | undefined) {
  return {
    kinds: p?.kinds ?? [],
    items: p?.items ?? [],
    titles: p?.titles ?? [],
    withoutKinds: p?.withoutKinds ?? [],
    without: p?.without ?? [],
    withoutTitles: p?.withoutTitles ?? [],
    attachments: p?.withoutAttachments ? ('OUT' as const) : ('ALONG' as const),
    ...placed(p?.into),
  };
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
    attachments: 'attachments',
    emptied: 'emptied shells',
    onto: 'what the shells are like',
    weeks: 'week places',
    atOnce: 'how many at once',
    clash: 'clashes',
    twin: 'twins',
  };
  const all: string[] = single.filter((n) => o[n] !== of[n]).map((n) => names[n]);
  const same = (n: (typeof lists)[number]) => [...o[n]].sort().join() === [...of[n]].sort().join();
  for (const name of ofKinds)
    if (address(o)[name] !== address(of)[name]) all.push(`${names[byKind[name]]} by kind`);
  if (texts.some((n) => o[n] !== of[n])) all.push('the named place');
  if (!same('items') || !same('kinds') || !same('titles')) all.push('chosen items');
  if (!same('without') || !same('withoutKinds') || !same('withoutTitles'))
    all.push('what is left out');
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
    weeks: c.weeks ?? usual.weeks,
    atOnce: offered(c.atOnce),
    what: p?.what ?? usual.what,
    ...ofKind(c.byKind),
    ...ofParts(p),
  };
}
