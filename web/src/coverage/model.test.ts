import { describe, expect, it } from 'vitest';
import { handWords, is, passes, pasted, stands, standWords, tally } from './model';

const section = (id: string, campus: string) => ({
  id,
  code: '110-' + id,
  title: 'Light, section ' + id,
  course: 'LGT 110',
  campus,
  instructors: 'Agnes Pell, Karl Hale',
  shell: true,
  inRoster: true,
});
const version = (number: number) => ({ id: 'v' + number, number, note: '', frozenAt: '' });
const coverage = {
  sections: [section('01', 'North'), section('02', 'Quay'), section('03', 'Mill')],
  masters: [
    {
      id: 'm',
      code: 'LGT 110',
      title: 'Light',
      everySection: false,
      versions: [1, 2, 3].map(version),
    },
  ],
  unread: [],
  standings: [
    {
      section: [0, 1, 2],
      number: [3, 1, 0],
      expected: [10, 10, 0],
      held: [10, 8, 0],
      changed: [2, 0, 0],
      wanted: [3, 3, 3],
      needsPerson: [1],
    },
  ],
};

describe('coverage', () => {
  const all = stands(coverage);

  it('knows who is in step, behind and never received', () => {
    expect(all.map((s) => s.behind)).toEqual([0, 2, 0]);
    expect(all.map((s) => s.never)).toEqual([false, false, true]);
    expect(tally(all)).toEqual({ step: 1, behind: 1, changed: 1, partial: 1, never: 1, person: 1 });
  });

  it('is not behind a version that a rule pins', () => {
    const [column] = coverage.standings;
    const pinned = stands({ ...coverage, standings: [{ ...column, wanted: [3, 1, 3] }] });
    expect(pinned.map((s) => s.behind)).toEqual([0, 0, 0]);
    expect(standWords(pinned[1])).toContain('v1 is expected');
  });

  it('fills a partial section only as far as it has arrived', () => {
    expect(all[1].share).toBe(0.8);
    expect(is(all[1], 'partial')).toBe(true);
  });

  it('says how the sections in the hand stand', () => {
    expect(handWords(all)).toBe(
      '1 behind by 2 · 1 in step · 1 never received it · 1 changed here · 1 needs you',
    );
  });

  it('says one stand in a sentence', () => {
    expect(standWords(all[0])).toBe(
      'LGT 110 in 110-01, North: in step, holds v3, 2 items changed here',
    );
  });

  it('filters by course, campus, instructor and text together', () => {
    const f = { text: 'pell', course: 'LGT 110', campus: 'Quay', instructor: 'Karl Hale' };
    expect(coverage.sections.filter((s) => passes(s, f)).map((s) => s.id)).toEqual(['02']);
    expect(passes(coverage.sections[0], { ...f, campus: '', text: 'nobody' })).toBe(false);
  });
});

it('pasted codes are found whatever stands between them, and the unknown are told', () => {
  const sections = [
    { id: 'a', code: '110-01' },
    { id: 'b', code: '110-02' },
    { id: 'c', code: 'SND-02' },
    { id: 'd', code: '110-02' },
  ];
  expect(pasted('110-01, snd-02;110-99\n110-01\tx', sections)).toEqual({
    ids: ['a', 'c'],
    unknown: ['110-99', 'x'],
  });
  expect(pasted('110-02', sections).ids).toEqual(['b', 'd']);
  expect(pasted(' \n', sections)).toEqual({ ids: [], unknown: [] });
});
