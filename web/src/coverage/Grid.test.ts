import { fireEvent, render, screen } from '@testing-library/svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import { hand } from '../frame/hand.svelte';
import { place } from '../frame/place.svelte';
import Grid from './Grid.svelte';
import { stands } from './model';

const section = (n: number, campus: string, instructors: string) => ({
  id: 's' + n,
  code: '110-0' + n,
  title: 'Light, section ' + n,
  course: n < 3 ? 'LGT 110' : 'SND 120',
  campus,
  instructors,
  shell: true,
  inRoster: true,
});
const masters = [
  {
    id: 'm',
    code: 'LGT 110',
    title: 'Light',
    everySection: false,
    versions: [1, 2].map((number) => ({ id: 'v' + number, number, note: '', frozenAt: '' })),
  },
];
const all = stands({
  sections: [
    section(1, 'North', 'Agnes Pell'),
    section(2, 'Quay', 'Karl Hale'),
    section(3, 'North', 'Bo Ames'),
  ],
  masters,
  unread: [],
  standings: [
    {
      section: [0, 1, 2],
      number: [2, 1, 0],
      expected: [5, 5, 0],
      held: [5, 5, 0],
      changed: [0, 1, 0],
      wanted: [2, 2, 2, 2],
      needsPerson: [],
    },
  ],
});
const rows = () =>
  screen
    .getAllByRole('row')
    .slice(1)
    .map((r) => r.textContent?.trim() ?? '');
const order = () => rows().map((t) => /110-0\d/.exec(t)?.[0] ?? t.replace(/\s+/g, ' '));

describe('the grid', () => {
  beforeEach(() => {
    hand.drop();
    place.go('/coverage');
  });

  it('groups sections by course and says how many each has', () => {
    render(Grid, { stands: all, masters });
    expect(order()).toEqual([
      expect.stringMatching(/LGT 110.*2/),
      '110-01',
      '110-02',
      expect.stringMatching(/SND 120.*1/),
      '110-03',
    ]);
  });

  it('groups by campus or instructor, and sorts by what needs somebody', () => {
    place.go('/coverage?group=campus');
    const { unmount } = render(Grid, { stands: all, masters });
    expect(order().filter((o) => o.startsWith('110'))).toEqual(['110-01', '110-03', '110-02']);
    unmount();
    place.go('/coverage?group=none&sort=worst');
    render(Grid, { stands: all, masters });
    expect(order()).toEqual(['110-03', '110-02', '110-01']);
  });

  it('takes a section, or a whole group, in hand by the keyboard', async () => {
    render(Grid, { stands: all, masters });
    const grid = screen.getByRole('grid');
    await fireEvent.keyDown(grid, { key: ' ' });
    expect([...hand.sections]).toEqual(['s1', 's2']);
    await fireEvent.keyDown(grid, { key: ' ' });
    expect(hand.size).toBe(0);
    await fireEvent.keyDown(grid, { key: 'End' });
    await fireEvent.keyDown(grid, { key: ' ' });
    expect([...hand.sections]).toEqual(['s3']);
  });

  it('opens a section beside the grid', async () => {
    render(Grid, { stands: all, masters });
    const grid = screen.getByRole('grid');
    await fireEvent.keyDown(grid, { key: 'ArrowDown' });
    await fireEvent.keyDown(grid, { key: 'Enter' });
    expect(place.get('at')).toBe('s1');
  });
});
