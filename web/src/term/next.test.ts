import { describe, expect, it } from 'vitest';
import { byCourse, candidates, sum, type Followed, type Section } from './next';

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
    const p = { masters: [], texts: [], open: 0, fresh: [] };
    expect(sum({ ...p, pairs: [pair(section('L1'), section('L2'))] })).toBe('1 section followed');
    expect(sum({ ...p, fresh: [section('L3')], pairs: [pair(section('L1'))] })).toBe(
      '0 sections followed · 1 without a successor · 1 that follow none',
    );
  });
});
