import { fireEvent, render, screen } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Kind, Schemas, StepKind } from '../api/client';
import { place } from '../frame/place.svelte';
import PlanGrid from './PlanGrid.svelte';

const row = (key: string, kind: Kind, parent?: string) => ({
  key,
  kind,
  title: 'Item ' + key,
  parent,
  inVersion: true,
});
/** Two modules of forty items for fifty sections: every item is new, one is a clash. */
function large(): Schemas['DeliveryPlan'] {
  const items = Array.from({ length: 80 }, (_, i) => row('i' + i, 'PAGE', i < 40 ? 'w1' : 'w2'));
  const rows = [row('w1', 'MODULE'), row('w2', 'MODULE'), ...items];
  const lines = Array.from({ length: 50 }, (_, i) => 'l' + i);
  const steps = lines.map((_, l) => items.flatMap((_, i) => [i + 2, l === 7 && i === 60 ? 1 : 0]));
  const codes: Schemas['StepCode'][] = [
    { kind: 'ADD', reason: 'NEW_IN_VERSION', moves: true },
    { kind: 'CLASH', reason: 'BOTH_MOVED', moves: false },
  ];
  return { rows, lines, codes, steps };
}
const lines = Array.from(
  { length: 50 },
  (_, i) =>
    ({ id: 'l' + i, code: 'S' + i, campus: 'North', instructors: '' }) as Schemas['DeliveryLine'],
);

beforeEach(() => {
  place.go('/deliveries/d');
  // The page of the tests has no sizes of its own.
  vi.spyOn(HTMLElement.prototype, 'clientWidth', 'get').mockReturnValue(900);
  vi.spyOn(HTMLElement.prototype, 'clientHeight', 'get').mockReturnValue(600);
});
afterEach(() => vi.restoreAllMocks());
function shown(only: StepKind | '' = '') {
  render(PlanGrid, { plan: large(), lines, only });
  return screen.getByRole('grid');
}

describe('the plan picture', () => {
  it('draws only what is seen, in a few paths', () => {
    const grid = shown();
    expect(grid).toHaveAttribute('aria-rowcount', '84');
    expect(grid).toHaveAttribute('aria-colcount', '50');
    expect(screen.getAllByRole('row').length).toBeLessThan(40);
    expect(grid.querySelectorAll('path').length).toBeLessThan(9);
  });

  it('opens the step under the cursor', async () => {
    const grid = shown();
    await fireEvent.keyDown(grid, { key: 'ArrowRight' });
    await fireEvent.keyDown(grid, { key: 'ArrowDown' });
    await fireEvent.keyDown(grid, { key: 'Enter' });
    expect([place.get('line'), place.get('item')]).toEqual(['l1', 'i1']);
  });

  it('goes to the ends of a row, of the picture, and a page on', async () => {
    const grid = shown();
    await fireEvent.keyDown(grid, { key: 'End' });
    await fireEvent.keyDown(grid, { key: 'Enter' });
    expect([place.get('line'), place.get('item')]).toEqual(['l49', 'i0']);
    await fireEvent.keyDown(grid, { key: 'End', ctrlKey: true });
    await fireEvent.keyDown(grid, { key: 'ArrowUp' }); // the last line folds what is the same
    await fireEvent.keyDown(grid, { key: 'Home' });
    await fireEvent.keyDown(grid, { key: 'Enter' });
    expect([place.get('line'), place.get('item')]).toEqual(['l0', 'i79']);
    await fireEvent.keyDown(grid, { key: 'PageUp' });
    await fireEvent.keyDown(grid, { key: 'Enter' });
    expect(place.get('item')).not.toBe('i79');
  });

  it('leads on to what a person may want to look at', async () => {
    const grid = shown();
    await fireEvent.keyDown(grid, { key: 'n' });
    expect([place.get('line'), place.get('item')]).toEqual(['l7', 'i60']);
    await fireEvent.keyDown(grid, { key: 'n' });
    expect(place.get('item')).toBe('i60');
  });

  it('says of the step under the cursor what it is, for whom and where', async () => {
    const grid = shown();
    await fireEvent.keyDown(grid, { key: 'ArrowRight' });
    const cell = screen.getByRole('gridcell');
    expect(grid).toHaveAttribute('aria-activedescendant', cell.id);
    expect(cell).toHaveAccessibleName('Item i0, S1: addition. The section does not have it yet.');
  });

  it('opens the step that is clicked, and names the one pointed at', async () => {
    const grid = shown();
    // The second row and the fourth column: widths of 22, rows of 23, heads of 286 and 62.
    const there = { clientX: 286 + 3 * 22 + 5, clientY: 62 + 23 + 5 };
    await fireEvent.pointerMove(grid, there);
    expect(grid).toHaveAttribute('title', expect.stringMatching(/^Item i0, S3: addition/));
    await fireEvent.click(grid, there);
    expect([place.get('line'), place.get('item')]).toEqual(['l3', 'i0']);
    await fireEvent.pointerMove(grid, { clientX: 20, clientY: 80 });
    expect(grid).not.toHaveAttribute('title');
  });

  it('shows one kind alone', () => {
    const grid = shown('CLASH');
    expect(grid).toHaveAttribute('aria-colcount', '1');
    expect(screen.getAllByRole('rowheader').map((r) => r.textContent?.trim())).toContain(
      'Item i60',
    );
    expect(grid.querySelectorAll('path')).toHaveLength(1);
  });

  it('keeps its cursor among what is drawn when that becomes less', async () => {
    const { rerender } = render(PlanGrid, { plan: large(), lines, only: '' });
    const grid = screen.getByRole('grid');
    await fireEvent.keyDown(grid, { key: 'End', ctrlKey: true });
    await fireEvent.keyDown(grid, { key: 'End' });
    await rerender({ only: 'CLASH' });
    await fireEvent.keyDown(grid, { key: 'Enter' }); // opens the fold that is last there
    await fireEvent.keyDown(grid, { key: 'n' });
    expect([place.get('line'), place.get('item')]).toEqual(['l7', 'i60']);
  });
});
