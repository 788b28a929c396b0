import type { Aspect, Schemas } from '../api/client';
import { aspectList, everyAspect, many } from '../marks/words';
import { words } from '../delivery/plan';

export type Variants = Schemas['ItemVariants'];
export type Section = Schemas['VariantSection'];
type View = Schemas['ItemView'];

/** Sections in which an item is equal in what is looked at. */
export interface Group {
  /** By which an address names it. */
  name: string;
  title: string;
  about: string;
  sections: Section[];
  /** Versions it is behind; none of one that the sections changed. */
  behind: number;
  what: 'version' | 'own' | 'gone';
  /** What it says there; none where it is not there, or is one of very many. */
  view?: View;
  /** In which aspects it is the sections' own. */
  changed: Aspect[];
}

/** The aspects that an address names; all if it names none. */
export function aspects(by: string): Aspect[] {
  return everyAspect.some((a) => a === by) ? [by as Aspect] : everyAspect;
}

const place = (a: Aspect) => everyAspect.indexOf(a);
const forms = (f: readonly number[], by: readonly Aspect[]) => by.map((a) => f[place(a)]).join();
const own = (s: Section) => [...new Set([...s.changed, ...s.accepted])];

/** The newest version that says the same as the one a section got it from. */
function standsAt(v: Variants, s: Section, by: readonly Aspect[]): number {
  const got = v.versions.find((x) => x.number === s.number);
  if (!got) return s.number;
  const same = v.versions.filter((x) => forms(x.forms, by) === forms(got.forms, by));
  return same.at(-1)?.number ?? s.number;
}

function group(name: string, what: Group['what'], more: Partial<Group>): Group {
  return { name, what, title: '', about: '', sections: [], behind: 0, changed: [], ...more };
}

/** What differs, in a few words. */
function titled(
  changed: readonly Aspect[],
  view: View | undefined,
  from: View | undefined,
): string {
  if (changed.length === 1 && view && from) {
    const [a] = changed;
    if (a === 'GRADING' && view.points !== from.points)
      return Number(view.points ?? 0) < Number(from.points ?? 0) ? 'Fewer points' : 'More points';
    if (a === 'VISIBILITY' && view.shown !== from.shown) return view.shown ? 'Shown' : 'Hidden';
    if (a === 'WORDING' && view.title !== from.title && view.html === from.html)
      return 'Another title';
    if (a === 'WORDING') return 'Other wording';
    if (a === 'TIMING') return 'Other dates';
    if (a === 'PLACE') return 'Another place';
  }
  return `Other ${aspectList(changed)}`;
}

function about(g: Group): string {
  const accepted = g.sections.every((s) => !s.changed.length);
  const n = many(g.sections.length, 'section');
  return accepted
    ? `accepted in ${n}`
    : g.sections.length > 1
      ? `changed in ${n}, equal in all`
      : 'changed in 1 section';
}

/** The sections grouped by what they made of the item: versions first, the newest first. */
export function groups(v: Variants, by: readonly Aspect[]): Group[] {
  const all = new Map<string, Group>();
  const put = (s: Section, g: () => Group) => {
    const made = g();
    const of = all.get(made.name) ?? made;
    all.set(made.name, of);
    of.sections.push(s);
  };
  for (const s of v.sections) {
    const changed = own(s).filter((a) => by.includes(a));
    if (!s.here) put(s, () => group('gone', 'gone', { title: 'Not there' }));
    else if (changed.length) {
      const here = forms(s.here, by);
      put(s, () =>
        group('own-' + here, 'own', {
          changed: everyAspect.filter((a) => changed.includes(a)),
          view: v.views.find((x) => forms(x.forms, everyAspect) === forms(s.here!, everyAspect))
            ?.view,
        }),
      );
    } else {
      const at = standsAt(v, s, by);
      put(s, () =>
        group('v' + at, 'version', {
          title: `As version ${at}`,
          behind: v.versions.filter((x) => x.number > at).length,
          view: v.versions.find((x) => x.number === at)?.view,
        }),
      );
    }
  }
  const newest = v.versions.at(-1)?.view;
  for (const g of all.values()) {
    if (g.what === 'own') {
      g.title = titled(g.changed, g.view, newest);
      g.about = about(g);
    } else if (g.what === 'version')
      g.about = g.behind ? `${many(g.behind, 'change')} behind` : 'newest, as delivered';
    else g.about = missing(g.sections);
  }
  const order = { version: 0, own: 1, gone: 2 };
  return [...all.values()].sort(
    (a, b) =>
      order[a.what] - order[b.what] ||
      a.behind - b.behind ||
      b.sections.length - a.sections.length ||
      a.name.localeCompare(b.name),
  );
}

function missing(sections: readonly Section[]): string {
  const never = sections.filter((s) => !s.number).length;
  const gone = sections.length - never;
  return [gone && `taken out in ${gone}`, never && `never received in ${never}`]
    .filter(Boolean)
    .join(', ');
}

/** All that an item says, as lines. */
export function says(view: View | undefined): string {
  if (!view) return '';
  return [
    view.title,
    words(view.html),
    view.points ? `${view.points} points` : '',
    view.due ? `due ${view.due.replace('T', ' ')}` : '',
    view.address ?? '',
    view.file?.name ?? '',
    view.shown ? '' : 'hidden',
  ]
    .filter(Boolean)
    .join('\n');
}
