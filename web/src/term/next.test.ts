import { describe, expect, it } from 'vitest';
import { becomes, byCourse, candidates, changed, recipes, sum } from './next';
import type { Followed, Section, Text } from './next';

const section = (code: string, course = 'LGT 110'): Section => ({
  id: code,
  code,
  course,
  campus: 'North',
  instructors: 'Agnes Pell',
});
const pair = (from: Section, to?: Section): Followed => ({ from, to, why: to && 'CAMPUS' });

describe('the next term', () => {
  it('shows first what nothing follows', () => {
    const all = [
      pair(section('L1'), section('L1b')),
      pair(section('S1', 'SND 120'), section('S1b', 'SND 120')),
      pair(section('S2', 'SND 120')),
    ];
    const courses = byCourse(all, '');
    expect(courses.map((c) => [c.course, c.without])).toEqual([
      ['SND 120', 1],
      ['LGT 110', 0],
    ]);
    expect(courses[0].rows[0].from.code).toBe('S2');
  });

  it('finds a section by what follows it too', () => {
    const all = [pair(section('L1'), section('L9')), pair(section('L2'), section('L8'))];
    expect(byCourse(all, 'l8')[0].rows.map((r) => r.from.code)).toEqual(['L2']);
    expect(byCourse(all, 'sound')).toEqual([]);
  });

  it('offers sections of the same course first', () => {
    const fresh = [section('S3', 'SND 120'), section('L3')];
    expect(candidates(pair(section('L1')), fresh).map((s) => s.code)).toEqual(['L3', 'S3']);
  });

  it('says what was worked out, and nothing of what is not there', () => {
    const p = { masters: [], texts: [], parts: [], busy: [], entered: true, open: 0, fresh: [] };
    expect(sum({ ...p, pairs: [pair(section('L1'), section('L2'))] })).toBe('1 section followed');
    expect(sum({ ...p, fresh: [section('L3')], pairs: [pair(section('L1'))] })).toBe(
      '0 sections followed · 1 without a successor · 1 that follow none',
    );
  });

  const text: Text = {
    master: 'm',
    code: 'LGT 110',
    item: 'k',
    title: 'Syllabus',
    starter: false,
    sections: 12,
    filled: 0,
    into: 9,
  };

  it('asks what becomes of a text until somebody has said it', () => {
    expect(Object.keys(becomes(text))).toEqual(['', 'AGAIN', 'BLANKS', 'TO_MASTER', 'DROPPED']);
    expect(Object.keys(becomes({ ...text, onward: 'DROPPED' }))).not.toContain('');
  });

  it('says how much sections made their own', () => {
    expect(changed(text)).toBe('changed in 12 sections');
    expect(changed({ ...text, filled: 3 })).toBe(
      'changed in 12 sections, in 3 of them only blanks filled',
    );
    expect(changed({ ...text, filled: 12, starter: true })).toBe(
      'blanks filled in 12 sections, each section’s own',
    );
  });

  it('offers the usual choices beside the recipes of a master', () => {
    const none = { master: 'm', code: 'c', title: 't', number: 1, newest: 1, pinned: false };
    const m = {
      ...none,
      leftOut: false,
      sections: 1,
      open: 1,
      recipes: [{ id: 'r', name: 'Safe' }],
    };
    expect(Object.values(recipes(m))).toEqual(['with the usual choices', 'by the recipe “Safe”']);
  });
});
