import { describe, expect, it } from 'vitest';
import { markSizes } from './markSizes';

const small = [
  [5, 0, 3, 12, 28],
  [2, 0, 3, 5, 12],
];
const large = [[18, 0, 4, 30, 268], ...Array.from({ length: 12 }, () => [5, 0, 3, 12, 48])];

describe('marks of the spread', () => {
  it('are as large as they may be where there is room', () => {
    expect(markSizes(small, 1300, 900).flat()).toEqual(Array(10).fill(24));
  });

  it('become smaller when the bands would not be seen together', () => {
    const tall = Math.max(...markSizes(large, 740, 2000).flat());
    const low = Math.max(...markSizes(large, 740, 600).flat());
    expect(tall).toBe(24);
    expect(low).toBe(16);
  });

  it('of a column with hundreds of sections are the smallest that still differ', () => {
    const [newest] = markSizes([[0, 0, 0, 0, 3000]], 740, 600).map((b) => b[4]);
    expect(newest).toBe(9);
  });

  it('do not fail where there is nothing or no room', () => {
    expect(markSizes([], 740, 600)).toEqual([]);
    expect(
      markSizes([[1, 1, 1, 1, 1]], 10, 10)
        .flat()
        .every((s) => s >= 9),
    ).toBe(true);
  });
});
