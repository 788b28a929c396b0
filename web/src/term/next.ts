import type { Schemas } from '../api/client';
import { many } from '../marks/words';

export type Proposal = Schemas['NextTermProposal'];
export type Followed = Schemas['SectionFollowed'];
export type Section = Schemas['SectionOfTerm'];

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
