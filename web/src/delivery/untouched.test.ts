import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { lost, proof } from './untouched';

const counts = (work: number) => ({ enrolments: 26, work, grades: 3, posts: 8 });
const line = (before?: number, after?: number) =>
  ({
    lost: (after ?? 0) < (before ?? 0),
    before: before === undefined ? undefined : counts(before),
    after: after === undefined ? undefined : counts(after),
  }) as Schemas['DeliveryLine'];

describe('what is the students’ own', () => {
  it('is proven by counts', () => {
    expect(proof([line(14, 15), line(1, 1), line()])).toBe(
      'counted before and after in 2 sections: 15 pieces of work, 6 grades, 16 posts, none lost',
    );
    expect(proof([line()])).toBe('');
  });
  it('is told where it is less', () => {
    const less = line(14, 13);
    expect(lost([less, line(1, 2), line()])).toEqual([less]);
    expect(proof([less])).not.toContain('none lost');
  });
});
