import type { Schemas } from '../api/client';
import type { Look } from '../marks/standingShapes';
import { many } from '../marks/words';

export type Sec = Schemas['CoverageSection'];
export type Master = Schemas['CoverageMaster'];

/** How one section stands towards one master. */
export interface Stand {
  section: Sec;
  master: Master;
  number: number;
  /** The version that is expected: the newest, or the one that a coverage rule pins. */
  wanted: number;
  behind: number;
  never: boolean;
  share: number;
  partial: boolean;
  changed: number;
  needsPerson: boolean;
  /** Place of the section in the order of the term. */
  order: number;
  look: Look;
}

export const states = ['step', 'behind', 'changed', 'partial', 'never', 'person'] as const;
export type State = (typeof states)[number];

export const stateWords: Record<State, string> = {
  step: 'in step',
  behind: 'behind',
  changed: 'changed here',
  partial: 'partial',
  never: 'never received',
  person: 'need you',
};

export function stands(coverage: Schemas['Coverage']): Stand[] {
  return coverage.standings.flatMap((column, m) => {
    const master = coverage.masters[m];
    const waiting = new Set(column.needsPerson);
    return column.section.map((order, i): Stand => {
      const number = column.number[i];
      const never = number === 0;
      const wanted = column.wanted[i];
      const behind = never ? 0 : Math.max(0, wanted - number);
      const share = column.expected[i] ? column.held[i] / column.expected[i] : 1;
      const changed = column.changed[i];
      const needsPerson = waiting.has(order);
      return {
        section: coverage.sections[order],
        master,
        number,
        wanted,
        behind,
        never,
        share,
        partial: !never && column.held[i] < column.expected[i],
        changed,
        needsPerson,
        order,
        look: { share, behind, never, changed: changed > 0, failed: needsPerson },
      };
    });
  });
}

export function is(stand: Stand, state: State): boolean {
  switch (state) {
    case 'step':
      return !stand.never && stand.behind === 0;
    case 'behind':
      return stand.behind > 0;
    case 'changed':
      return stand.changed > 0;
    case 'partial':
      return stand.partial;
    case 'never':
      return stand.never;
    case 'person':
      return stand.needsPerson;
  }
}

export interface Filter {
  text: string;
  course: string;
  campus: string;
  instructor: string;
}

/** What is looked through for a text, once for each section. */
const words = new WeakMap<Sec, string>();
function wordsOf(s: Sec): string {
  let of = words.get(s);
  if (of === undefined) {
    of = `${s.code} ${s.title} ${s.course} ${s.instructors}`.toLowerCase();
    words.set(s, of);
  }
  return of;
}

export function passes(s: Sec, f: Filter): boolean {
  const text = f.text.trim().toLowerCase();
  return (
    (!f.course || s.course === f.course) &&
    (!f.campus || s.campus === f.campus) &&
    (!f.instructor || s.instructors.split(', ').includes(f.instructor)) &&
    (!text || wordsOf(s).includes(text))
  );
}

/** Those of sections that pass; each section is looked at once. */
export function passing(all: Stand[], f: Filter): Stand[] {
  if (!f.text && !f.course && !f.campus && !f.instructor) return all;
  const known = new Map<Sec, boolean>();
  return all.filter((s) => {
    let yes = known.get(s.section);
    if (yes === undefined) known.set(s.section, (yes = passes(s.section, f)));
    return yes;
  });
}

/** How many sections are in each state towards at least one master. */
export function tally(all: Stand[]): Record<State, number> {
  const bits = new Map<Sec, number>();
  const behind = states.indexOf('behind');
  const never = states.indexOf('never');
  for (const s of all) {
    let of = bits.get(s.section) ?? 0;
    states.forEach((state, i) => (of |= is(s, state) ? 1 << i : 0));
    bits.set(s.section, of);
  }
  const out = Object.fromEntries(states.map((s) => [s, 0])) as Record<State, number>;
  for (const of of bits.values())
    states.forEach((state, i) => {
      const yes = state === 'step' ? !(of & ((1 << behind) | (1 << never))) : of & (1 << i);
      if (yes) out[state]++;
    });
  return out;
}

/** One sentence about the sections in the hand, towards one master. */
export function handWords(chosen: Stand[]): string {
  const by = new Map<number, number>();
  for (const s of chosen) if (!s.never) by.set(s.behind, (by.get(s.behind) ?? 0) + 1);
  const words: string[] = [];
  for (const [behind, n] of [...by].sort((a, b) => b[0] - a[0]))
    words.push(behind === 0 ? `${n} in step` : `${n} behind by ${behind}`);
  const never = chosen.filter((s) => s.never).length;
  const changed = chosen.filter((s) => s.changed).length;
  const person = chosen.filter((s) => s.needsPerson).length;
  if (never) words.push(`${never} never received it`);
  if (changed) words.push(`${changed} changed here`);
  if (person) words.push(`${person} ${person === 1 ? 'needs' : 'need'} you`);
  return words.join(' · ');
}

/** A stand in words, for names and hover. */
export function standWords(s: Stand): string {
  const where = `${s.master.code} in ${s.section.code}, ${s.section.campus}`;
  if (s.never) return `${where}: never received`;
  const words = [
    s.behind ? `${many(s.behind, 'version')} behind` : 'in step',
    `holds v${s.number}`,
  ];
  if (s.wanted < s.master.versions.length) words.push(`v${s.wanted} is expected`);
  if (s.partial) words.push('partial');
  if (s.changed) words.push(`${many(s.changed, 'item')} changed here`);
  if (s.needsPerson) words.push('a delivery needs you');
  return `${where}: ${words.join(', ')}`;
}

/** What pasted codes of sections mean; a code that several sections have means all of them. */
export function pasted(
  text: string,
  sections: readonly { id: string; code: string }[],
): { ids: string[]; unknown: string[] } {
  const byCode = new Map<string, string[]>();
  for (const s of sections) {
    const code = s.code.toLowerCase();
    byCode.set(code, [...(byCode.get(code) ?? []), s.id]);
  }
  const codes = [...new Set(text.split(/[\s,;]+/).filter(Boolean))];
  return {
    ids: codes.flatMap((c) => byCode.get(c.toLowerCase()) ?? []),
    unknown: codes.filter((c) => !byCode.has(c.toLowerCase())),
  };
}
