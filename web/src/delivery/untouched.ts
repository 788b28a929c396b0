import type { Schemas } from '../api/client';
import { many } from '../marks/words';

type Line = Schemas['DeliveryLine'];

/** Sections in which something of students' own was counted before, and less of it after. */
export function lost(lines: readonly Line[]): Line[] {
  return lines.filter((l) => l.lost);
}

/** What the counts prove, in words; empty where nothing was counted. */
export function proof(lines: readonly Line[]): string {
  const counted = lines.filter((l) => l.before && l.after);
  if (!counted.length) return '';
  const sum = (of: (c: NonNullable<Line['before']>) => number) =>
    counted.reduce((n, l) => n + of(l.before!), 0);
  const words = [
    many(
      sum((c) => c.work),
      'piece of work',
      'pieces of work',
    ),
    many(
      sum((c) => c.grades),
      'grade',
    ),
    many(
      sum((c) => c.posts),
      'post',
    ),
  ];
  return `counted before and after in ${many(counted.length, 'section')}: ${words.join(', ')}${lost(counted).length ? '' : ', none lost'}`;
}
