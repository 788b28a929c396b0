import { fireEvent, render, screen } from '@testing-library/svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import { hand } from '../frame/hand.svelte';
import { place } from '../frame/place.svelte';
import Spread from './Spread.svelte';
import { stands } from './model';
import { Lines } from '../lists/lines';

const sections = ['01', '02', '03', '04'].map((n) => ({
  id: 's' + n,
  code: '110-' + n,
  title: 'Light, section ' + n,
  course: 'LGT 110',
  campus: 'North',
  instructors: 'Agnes Pell',
  shell: true,
  inRoster: true,
}));
const version = (number: number) => ({ id: 'v' + number, number, note: '', frozenAt: '' });
const masters = [
  { id: 'm', code: 'LGT 110', title: 'Light', everySection: false, versions: [1, 2].map(version) },
];
const five = [5, 5, 5, 5];
const all = stands({
  sections,
  masters,
  unread: [],
  standings: [
    {
      section: [0, 1, 2, 3],
      number: [2, 1, 1, 0],
      expected: five,
      held: five,
      changed: [0, 0, 0, 0],
      wanted: [2, 2, 2, 2],
      needsPerson: [],
    },
  ],
});

describe('the spread', () => {
  beforeEach(() => {
    hand.drop();
    place.go('/coverage');
    render(Spread, { stands: all, masters, master: masters[0] });
  });
  const take = (column: string, n: number) =>
    screen.getByLabelText(`Take in hand: LGT 110, ${column}, ${n} sections`);

  it('stands every section over the version it holds', () => {
    expect(take('in step', 1)).toHaveTextContent('v2 · 1');
    expect(take('1 behind', 2)).toHaveTextContent('v1 · 2');
    expect(take('never', 1)).toHaveTextContent('1');
  });

  it('takes all of one place in hand, and puts them back', async () => {
    await fireEvent.click(take('1 behind', 2));
    expect([...hand.sections]).toEqual(['s02', 's03']);
    await fireEvent.click(take('1 behind', 2));
    expect(hand.size).toBe(0);
  });

  it('adds the next place of the same master to the hand', async () => {
    await fireEvent.click(take('1 behind', 2));
    await fireEvent.click(take('never', 1));
    expect(hand.size).toBe(3);
  });

  const grid = () => screen.getByRole('grid');
  const at = () => document.getElementById(grid().getAttribute('aria-activedescendant')!);
  const press = (key: string) => fireEvent.keyDown(grid(), { key });

  it('takes with Space, opens with Enter, goes on with the arrows over the ends of columns', async () => {
    expect(at()).toHaveAccessibleName(/110-04.*never received/);
    await press('ArrowRight');
    expect(at()).toHaveAccessibleName(/110-02/);
    await press(' ');
    expect([...hand.sections]).toEqual(['s02']);
    expect(at()).toHaveAccessibleName(/in hand$/);
    await press('ArrowRight');
    expect(at()).toHaveAccessibleName(/110-03/);
    await press('Enter');
    expect(place.get('at')).toBe('s03');
    await press('ArrowLeft');
    await press('ArrowLeft');
    await press('ArrowLeft');
    expect(at()).toHaveAccessibleName(/110-04/);
  });
});

describe('marks in lines', () => {
  const lines = new Lines(7, 18, 65, 20 / 18);

  it('are broken at the width', () => {
    expect([lines.across, lines.down]).toEqual([3, 3]);
    expect(lines.at(4)).toEqual({ x: 20, y: 19 });
  });

  it('are found by a point', () => {
    expect(lines.under(25, 20)).toBe(4);
    expect(lines.under(45, 45)).toBeUndefined();
    expect(lines.under(-1, 5)).toBeUndefined();
  });

  it('are found by a rectangle that touches them', () => {
    expect(lines.within(-50, 5, 30, 30)).toEqual([0, 1, 3, 4]);
    expect(lines.within(0, 40, 500, 500)).toEqual([6]);
  });
});
