import type { Schemas } from '../api/client';
import { many } from '../marks/words';

export type Proposal = Schemas['NextTermProposal'];
export type Followed = Schemas['SectionFollowed'];
export type Section = Schemas['SectionOfTerm'];
export type Text = Schemas['TextOfSections'];
export type Onward = NonNullable<Text['onward']>;

/** Why a section is taken for the successor of another. */
export const why: Record<NonNullable<Followed['why']>, string> = {
  BY_HAND: 'by hand',
  INSTRUCTOR_AND_CAMPUS: 'same instructor and campus',
  INSTRUCTOR: 'same instructor',
  CAMPUS: 'same campus',
  COURSE: 'same course',
};

export interface OfCourse {
  course: string;
  /** Those that nothing follows come first. */
  rows: Followed[];
  without: number;
}

/** By course; courses with sections that nothing follows first. */
export function byCourse(pairs: Followed[], look: string): OfCourse[] {
  const words = look.trim().toLowerCase();
  const says = (s: Section | undefined) =>
    s ? `${s.code} ${s.instructors} ${s.campus}`.toLowerCase() : '';
  const all = new Map<string, Followed[]>();
  for (const p of pairs) {
    if (words && !`${says(p.from)} ${says(p.to)} ${p.from.course.toLowerCase()}`.includes(words))
      continue;
    all.set(p.from.course, [...(all.get(p.from.course) ?? []), p]);
  }
  return [...all]
    .map(([course, rows]) => ({
      course,
      rows: [...rows].sort((a, b) => Number(!!a.to) - Number(!!b.to)),
      without: rows.filter((r) => !r.to).length,
    }))
    .sort((a, b) => Number(!a.without) - Number(!b.without));
}

/** What a section can be followed by: what follows it, and what follows none; its course first. */
export function candidates(p: Followed, fresh: Section[]): Section[] {
  const same = (s: Section) => Number(s.course !== p.from.course);
  return [...(p.to ? [p.to] : []), ...fresh].sort((a, b) => same(a) - same(b));
}

/** What has been worked out, in one sentence. */
export function sum(p: Proposal): string {
  const followed = p.pairs.filter((x) => x.to).length;
  const without = p.pairs.length - followed;
  return [
    `${many(followed, 'section')} followed`,
    without ? `${without} without a successor` : '',
    p.fresh.length ? `${p.fresh.length} that follow none` : '',
  ]
    .filter(Boolean)
    .join(' · ');
}

const onward: Record<Onward, string> = {
  AGAIN: 'goes along as each section has it',
  BLANKS: 'only what was put into blanks goes along',
  TO_MASTER: 'goes into the master',
  DROPPED: 'is dropped, the master’s text comes',
};

/** What can become of a text; the first is there only until somebody says something. */
export function becomes(x: Text): Record<string, string> {
  return x.onward ? onward : { '': 'to be said; till then the master’s comes', ...onward };
}

/** How much of it sections made their own. */
export function changed(x: Text): string {
  const filled =
    x.filled === x.sections
      ? `blanks filled in ${many(x.sections, 'section')}`
      : `changed in ${many(x.sections, 'section')}` +
        (x.filled ? `, in ${x.filled} of them only blanks filled` : '');
  return x.starter ? `${filled}, each section’s own` : filled;
}

/** By which recipes a master can come. */
export function recipes(m: Schemas['MasterComing']): Record<string, string> {
  return {
    '': 'with the usual choices',
    ...Object.fromEntries(m.recipes.map((r) => [r.id, `by the recipe “${r.name}”`])),
  };
}
