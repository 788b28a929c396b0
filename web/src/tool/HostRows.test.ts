import { fireEvent, render, screen } from '@testing-library/svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import { hand } from '../frame/hand.svelte';
import { place } from '../frame/place.svelte';
import HostRows from './HostRows.svelte';
import type { Cell, HostBand } from './tools';

const cell = (n: number, works: boolean): Cell =>
  ({
    section: { id: 's' + n, code: '110-0' + n },
    host: 'cuebench.example',
    state: works
      ? { standing: 'WORKS', reason: 'WORKS', whose: 'NOBODY' }
      : { standing: 'NOT_CONNECTED', reason: 'PLACEHOLDER', whose: 'ADMINISTRATOR' },
    links: 5,
    course: '',
    said: '',
    writing: 0,
  }) as Cell;
const dead = [cell(1, false), cell(2, false)];
const band: HostBand = {
  host: 'cuebench.example',
  name: 'CueBench',
  can: [true, false, true, true, true],
  asked: false,
  cells: [...dead, cell(3, true)],
  slots: [dead, [], [], [], [cell(3, true)]],
  links: 15,
};

beforeEach(() => {
  hand.drop();
  place.go('/tools');
});

describe('the rows of hosts', () => {
  it('take all sections of a stage in hand, and put them back', async () => {
    const { rerender } = render(HostRows, { bands: [band], before: 9 });
    const take = screen.getByRole('button', {
      name: 'Take in hand: CueBench, not connected, 2 sections',
    });
    await fireEvent.click(take);
    expect([...hand.sections]).toEqual(['s1', 's2']);
    expect(place.get('host')).toBe('cuebench.example');
    await rerender({ bands: [band], host: band, before: 9 });
    await fireEvent.click(take);
    expect(hand.size).toBe(0);
  });

  it('are walked by keys, which take and open', async () => {
    render(HostRows, { bands: [band], host: band, before: 9 });
    const grid = screen.getByRole('grid');
    await fireEvent.keyDown(grid, { key: ' ' });
    expect([...hand.sections]).toEqual(['s1']);
    await fireEvent.keyDown(grid, { key: 'ArrowRight' });
    await fireEvent.keyDown(grid, { key: 'ArrowRight' });
    expect(screen.getByRole('img', { name: '110-03: works' })).toBeTruthy();
    await fireEvent.keyDown(grid, { key: 'Enter' });
    expect(place.get('at')).toBe('s3');
  });

  it('say of a hatched column what it is', () => {
    render(HostRows, { bands: [band], before: 9 });
    expect(screen.getByRole('gridcell', { name: 'waits: it has no such stage' })).toBeTruthy();
  });
});
