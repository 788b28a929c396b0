import { api, got, type Kind, type Schemas } from '../api/client';
import { kind as kindWord } from '../marks/words';
import { usual, type Order } from './order';

export type PartSet = Schemas['NamedParts'];
type Said = Pick<PartSet, 'kinds' | 'titles'>;

/** Parts under a name, as they were read last. */
class PartSets {
  all = $state.raw<PartSet[]>([]);

  async load() {
    this.all = await got(api.GET('/api/deliveries/part-sets'));
  }

  /** Keeps a set, or what is said of one that there is. */
  async keep(name: string, said: Said, partSet?: string) {
    const body = { name, kinds: [...said.kinds], titles: [...said.titles] };
    if (partSet) {
      const params = { path: { partSet } };
      await got(api.PUT('/api/deliveries/part-sets/{partSet}', { params, body }));
    } else await got(api.POST('/api/deliveries/part-sets', { body }));
    await this.load();
  }

  async drop(partSet: string) {
    const params = { path: { partSet } };
    await got(api.DELETE('/api/deliveries/part-sets/{partSet}', { params }));
    await this.load();
  }
}

export const partSets = new PartSets();

/** Words of titles as they are typed: between commas. */
export function typed(text: string): string[] {
  return [...new Set(text.split(',').map((t) => t.trim()))].filter(Boolean);
}

/** What a set says, in words. */
export function setWords(s: Said): string {
  const titles = s.titles.map((t) => `“${t}”`).join(', ');
  return [
    s.kinds.map((k) => kindWord(k, 2)).join(', '),
    titles && (s.kinds.length ? `and titles with ${titles}` : `titles with ${titles}`),
  ]
    .filter(Boolean)
    .join(' ');
}

const alike = (a: readonly string[], b: readonly string[]) =>
  [...a].sort().join('\n') === [...b].sort().join('\n');

/** A comma parts titles in an address, and says nothing in one. */
const plain = (titles: readonly string[]) => titles.map((t) => t.replaceAll(',', ' '));

/** The change of an order that brings only what a set names. */
export function only(s: Said): Partial<Order> {
  return { what: 'SOME', kinds: s.kinds, titles: plain(s.titles), items: [] };
}

/** The change of an order that leaves out what a set names, and nothing else. */
export function spared(s: Said): Partial<Order> {
  return { withoutKinds: s.kinds, withoutTitles: plain(s.titles), without: [] };
}

/** The set that an order brings, if it is one. */
export function brought(o: Order, all: readonly PartSet[]): PartSet | undefined {
  return o.what === 'SOME' && !o.items.length
    ? all.find((s) => alike(s.kinds, o.kinds) && alike(plain(s.titles), o.titles))
    : undefined;
}

/** The set that an order leaves out, if it is one. */
export function leftOut(o: Order, all: readonly PartSet[]): PartSet | undefined {
  return o.without.length
    ? undefined
    : all.find((s) => alike(s.kinds, o.withoutKinds) && alike(plain(s.titles), o.withoutTitles));
}

/** Whether an order leaves anything out. */
export function leavesOut(o: Order): boolean {
  return o.without.length + o.withoutKinds.length + o.withoutTitles.length > 0;
}

/** What an order says by kinds and titles, to keep it as a set: what it leaves out, else what it brings. */
export function saidBy(o: Order): { kinds: Kind[]; titles: string[] } {
  const out = o.withoutKinds.length + o.withoutTitles.length > 0;
  return out
    ? { kinds: [...o.withoutKinds], titles: [...o.withoutTitles] }
    : { kinds: [...o.kinds], titles: [...o.titles] };
}

/** Nothing left out. */
export const nothingOut: Partial<Order> = {
  without: usual.without,
  withoutKinds: usual.withoutKinds,
  withoutTitles: usual.withoutTitles,
};
