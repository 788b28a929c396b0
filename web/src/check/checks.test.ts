import { describe, expect, it } from 'vitest';
import { against, daysUntil, left, ready, shares, strokes, type Section } from './checks';

const section = (code: string, course: string, campus: string, worst?: Section['worst']) =>
  ({ id: code, code, course, campus, instructors: '', looked: true, worst }) as Section;

describe('readiness', () => {
  it('is not harmed by what can wait, and nobody is ready who was never looked at', () => {
    expect(ready(section('a', 'LD', 'North', 'CAN_WAIT'))).toBe(true);
    expect(ready(section('a', 'LD', 'North', 'WRONG'))).toBe(false);
    expect(ready({ ...section('a', 'LD', 'North'), looked: false })).toBe(false);
  });

  it('is told by course and campus, what is furthest from it first', () => {
    const all = shares([
      section('1', 'LD', 'North'),
      section('2', 'LD', 'Mill', 'HARM'),
      section('3', 'SN', 'North', 'WRONG'),
    ]);
    expect(all.map((s) => [s.course, s.ready, s.all])).toEqual([
      ['SN', 0, 1],
      ['LD', 1, 2],
    ]);
    expect(all[1].campuses.get('Mill')?.ids).toEqual(['2']);
  });
});

describe('days', () => {
  const now = new Date(2027, 0, 12, 23, 30);
  it('are counted whole, whatever the hour', () => {
    expect(daysUntil('2027-01-18', now)).toBe(6);
    expect(left('2027-01-18', now)).toBe('6 days left');
    expect(left('2027-01-12', now)).toBe('today is the first day');
    expect(left('2027-01-02', now)).toBe('the first day was 10 days ago');
  });
  it('are compared with the last that was counted', () => {
    expect(against(-19)).toBe('19 findings fewer than when last counted');
    expect(against(1)).toBe('1 finding more than when last counted');
    expect(against(undefined)).toBe('');
  });
});

describe('strokes', () => {
  it('are one for each section and never wider than their room', () => {
    expect(strokes(12, 'HARM', 236).match(/M/g)).toHaveLength(12);
    const last = [...strokes(320, 'WRONG', 236).matchAll(/M([\d.]+)/g)].at(-1);
    expect(Number(last?.[1])).toBeLessThan(236);
  });
});
