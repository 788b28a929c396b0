import { describe, expect, it } from 'vitest';
import { row } from '../../test/forecast-row';
import { address, read, usual } from './order';
import {
  brought,
  leavesOut,
  leftOut,
  nothingOut,
  only,
  saidBy,
  setWords,
  spared,
  typed,
} from './partSets.svelte';
import { toggled } from './ticks';

const own = {
  id: 's',
  name: 'my own things to spare',
  kinds: ['DISCUSSION', 'ANNOUNCEMENT'],
  titles: ['syllabus', 'calendar, weekly'],
  madeBy: 'Ines',
  mine: true,
} as const;
const all = [{ ...own, kinds: [...own.kinds], titles: [...own.titles] }];

describe('a set of parts', () => {
  it('is known again in an order that brings it, or leaves it out, and in its address', () => {
    const brings = read(new URLSearchParams(address({ ...usual, ...only(all[0]) })));
    expect(brought(brings, all)).toBe(all[0]);
    expect(leavesOut(brings)).toBe(false);
    const spares = read(new URLSearchParams(address({ ...usual, ...spared(all[0]) })));
    expect(leftOut(spares, all)).toBe(all[0]);
    expect(brought(spares, all)).toBeUndefined();
    expect({ ...spares, ...nothingOut }).toEqual(usual);
  });

  it('is no longer that set once an item is left out besides', () => {
    const order = { ...usual, ...spared(all[0]), without: ['x'] };
    expect(leftOut(order, all)).toBeUndefined();
    expect(leavesOut(order)).toBe(true);
  });

  it('is said in words, and typed between commas', () => {
    expect(setWords(all[0])).toBe(
      'discussions, announcements and titles with “syllabus”, “calendar, weekly”',
    );
    expect(setWords({ kinds: [], titles: ['help'] })).toBe('titles with “help”');
    expect(typed(' syllabus, ,calendar,syllabus')).toEqual(['syllabus', 'calendar']);
  });

  it('begins with what the order leaves out, else with what it brings', () => {
    expect(saidBy({ ...usual, withoutKinds: ['FILE'] }).kinds).toEqual(['FILE']);
    expect(saidBy({ ...usual, what: 'SOME', kinds: ['PAGE'], titles: ['a'] })).toEqual({
      kinds: ['PAGE'],
      titles: ['a'],
    });
  });
});

describe('an item that a title', () => {
  it('leaves out comes back alone; the others stay out', () => {
    const order = { ...usual, withoutTitles: ['sy'] };
    const rows = [row('syllabus', { leftOut: true }), row('system', { leftOut: true }), row('x')];
    expect(toggled(order, rows, rows[0], 'off')).toEqual({ ...usual, without: ['system'] });
  });

  it('brings is left out alone', () => {
    const order = { ...usual, what: 'SOME' as const, titles: ['sy'] };
    const rows = [row('syllabus'), row('system'), row('x', { chosen: 0 })];
    expect(toggled(order, rows, rows[0], 'on')).toEqual({ ...order, without: ['syllabus'] });
    expect(toggled(order, rows, rows[2], 'off')).toEqual({ ...order, items: ['x'] });
  });
});
