import { fireEvent, render, screen } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../api/client';
import PlanAsks from './PlanAsks.svelte';
import { usual, type Order } from './order';

type Reason = Schemas['StepCode']['reason'];

/** A plan of two sections; the reason stands in the line of the second. */
function shown(reason: Reason, order: Partial<Order> = {}) {
  const change = vi.fn();
  const line = (id: string, code: string) =>
    ({ id, code, state: 'PLANNED' }) as Schemas['DeliveryLine'];
  render(PlanAsks, {
    detail: {
      delivery: {} as Schemas['DeliverySummary'],
      parts: { what: 'EVERYTHING' },
      takenBackBy: [],
      together: [],
      mail: { made: 0, sent: 0, problems: [] },
      lines: [line('a', '110-01'), line('b', '110-02')],
    },
    plan: {
      rows: [],
      lines: ['a', 'b'],
      codes: [
        { kind: 'ADD', reason: 'NEW_IN_VERSION', moves: true },
        { kind: 'KEEP', reason, moves: false },
      ],
      steps: [
        [0, 0],
        [0, 0, 1, 1],
      ],
    },
    order: { ...usual, ...order },
    planned: true,
    change,
  });
  return change;
}

describe('what a plan asks for many sections at once', () => {
  it('is whether weeks without a place get one', async () => {
    const change = shown('WEEKS_ADDED');
    expect(
      screen.getByText(/1 shell has too few places for weeks \(110-02\). Places are added/),
    ).toBeInTheDocument();
    await fireEvent.click(screen.getByRole('button', { name: 'Leave those weeks out' }));
    expect(change).toHaveBeenCalledWith({ weeks: 'LEAVE_OUT' });
  });

  it('warns where weeks do not come, and offers places', async () => {
    const change = shown('NO_WEEK', { weeks: 'LEAVE_OUT' });
    expect(screen.getByText(/Weeks without a place do not come there/)).toBeInTheDocument();
    await fireEvent.click(screen.getByRole('button', { name: 'Add places' }));
    expect(change).toHaveBeenCalledWith({ weeks: 'ADD' });
  });

  it('is whether an emptied shell is filled anew', async () => {
    const change = shown('EMPTIED');
    await fireEvent.click(screen.getByRole('button', { name: 'Deliver anew' }));
    expect(change).toHaveBeenCalledWith({ emptied: 'ANEW' });
  });

  it('says that a shell with work of students is not cleared', () => {
    shown('NOT_CLEARED', { onto: 'CLEAN' });
    expect(screen.getByText(/students have handed in work in 110-02/)).toBeInTheDocument();
  });

  it('is nothing where nothing stands out', () => {
    shown('CHANGED_HERE');
    expect(screen.queryByRole('button')).toBeNull();
  });
});
