import { fireEvent, render, screen, within } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import type { DeliveryState, Schemas } from '../api/client';
import RunView from './RunView.svelte';

type Line = Schemas['DeliveryLine'];
const line = (n: number, more: Partial<Line> = {}): Line => ({
  id: 'l' + n,
  section: 's' + n,
  code: '110-0' + n,
  campus: 'North',
  instructors: 'Agnes Pell',
  state: 'DONE',
  activity: 'read back, all as meant',
  steps: 10,
  stepsDone: 10,
  lost: false,
  same: 0,
  attempts: 0,
  counts: {},
  ...more,
});
const refused: Partial<Line> = {
  state: 'NEEDS_PERSON',
  stepsDone: 0,
  reason: 'The platform refuses the token.',
  remedy: 'Enter a new one under College.',
};

function shown(state: DeliveryState, lines: Line[]) {
  const stop = vi.fn();
  const takeBack = vi.fn();
  const goOn = vi.fn();
  const delivery = {
    id: 'd',
    state,
    masterCode: 'LGT 110',
    number: 3,
    confirmedAt: new Date(Date.now() - 60_000).toISOString(),
  } as Schemas['DeliverySummary'];
  render(RunView, {
    detail: {
      delivery,
      parts: { what: 'EVERYTHING' },
      takenBackBy: [],
      together: [],
      mail: { made: 0, sent: 0, problems: [] },
      lines,
    },
    trouble: null,
    stop,
    goOn,
    changed: vi.fn(),
    takeBack,
  });
  return { stop, goOn, takeBack };
}

describe('a run', () => {
  it('says in one line how far it is and what moves', () => {
    shown('RUNNING', [
      line(1),
      line(2),
      line(3, { state: 'RUNNING', stepsDone: 4, activity: 'writing Lamps' }),
      line(4, { state: 'WAITING', stepsDone: 0 }),
    ]);
    expect(screen.getByRole('heading', { level: 1 })).toHaveTextContent(
      'Delivering LGT 110, version 3: 2 of 4 sections done',
    );
    expect(screen.getByText(/left · goes on if you leave this page/)).toBeInTheDocument();
    expect(screen.getByText('2 done · 1 moving · 1 waiting')).toBeInTheDocument();
    expect(screen.getByRole('progressbar', { name: '110-03: 4 of 10' })).toHaveAttribute(
      'aria-valuenow',
      '40',
    );
  });

  it('stops after the sections that are being written', async () => {
    const { stop } = shown('RUNNING', [line(1), line(2, { state: 'RUNNING', stepsDone: 1 })]);
    await fireEvent.click(screen.getByRole('button', { name: 'Stop after these 1' }));
    expect(stop).toHaveBeenCalledOnce();
  });

  it('puts what failed on top with its reason, what was kept and what to do', async () => {
    const { goOn } = shown('DONE', [line(1), line(2, refused)]);
    expect(screen.getByRole('heading', { level: 1 })).toHaveTextContent(
      '1 of 2 sections done, 1 needs you',
    );
    const lane = screen.getByText('110-02').closest('.l') as HTMLElement;
    expect(lane).toHaveTextContent(
      'The platform refuses the token. Nothing was written. Enter a new one under College.',
    );
    expect(within(lane).getByRole('progressbar')).toHaveAccessibleName('110-02: needs you');
    await fireEvent.click(screen.getByRole('button', { name: 'Retry the 1' }));
    expect(goOn).toHaveBeenCalledOnce();
  });

  it('says once what holds many sections up', () => {
    shown('RUNNING', [line(1), ...[2, 3, 4].map((n) => line(n, refused))]);
    expect(screen.getByRole('status')).toHaveTextContent(
      '3 sections: The platform refuses the token. Enter a new one under College.',
    );
  });

  it('tells those that try again from those that move, and why only once', () => {
    const again = (n: number) =>
      line(n, {
        state: 'TRYING_AGAIN',
        stepsDone: 0,
        reason: 'The platform does not answer.',
        remedy: 'It goes on by itself.',
        nextTry: new Date(Date.now() + 3_500).toISOString(),
      });
    shown('RUNNING', [line(1), again(2), again(3), again(4)]);
    expect(screen.getByText('1 done · 3 trying again')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Stop' })).toBeInTheDocument();
    expect(screen.getAllByText(/^trying again in [34] s$/)).toHaveLength(3);
    expect(screen.getAllByText(/does not answer/)).toHaveLength(1);
  });

  it('goes on with what was stopped', () => {
    shown('STOPPED', [line(1), line(2, { state: 'STOPPED', stepsDone: 3 })]);
    expect(screen.getByRole('heading', { level: 1 })).toHaveTextContent(
      'Stopped: LGT 110, version 3, 1 of 2 sections done',
    );
    expect(screen.getByRole('button', { name: 'Go on with 1 section' })).toBeInTheDocument();
  });

  it('draws as full only what is written, by steps', () => {
    const moving = (n: number) => line(n, { state: 'RUNNING', stepsDone: 0, activity: 'reading' });
    shown('RUNNING', [1, 2, 3, 4, 5, 6].map(moving).concat(line(7, { ...refused, steps: 20 })));
    const bar = screen.getByRole('img', { name: /^0 of 80 steps written/ });
    const widths = [...bar.querySelectorAll('i')].map((i) => i.style.width);
    expect(widths).toEqual(['0%', '0%', '0%', '0%', '25%']);
    expect(screen.getByText(/0 of 80 steps written/)).toBeInTheDocument();
  });
});
