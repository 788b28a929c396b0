import { render, screen } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { refusal, serve, type Some } from '../../test/server-stand-in';
import type { DeliveryState, LineState, Schemas } from '../api/client';
import Deliveries from './Deliveries.svelte';

afterEach(() => vi.unstubAllGlobals());
const delivery = (
  id: string,
  state: DeliveryState,
  lines: Partial<Record<LineState, number>>,
  more: Some<Schemas['DeliverySummary']> = {},
): Some<Schemas['DeliverySummary']> => ({
  id,
  state,
  lines,
  masterCode: 'LGT 110',
  masterTitle: 'Light',
  number: 3,
  madeBy: 'Ines Vole',
  madeAt: '2026-09-01T08:00:00Z',
  confirmedAt: '2026-09-01T08:05:00Z',
  ...more,
});
async function listed(...deliveries: Some<Schemas['DeliverySummary']>[]) {
  serve({ 'GET /api/deliveries': deliveries });
  const { unmount } = render(Deliveries);
  await vi.waitFor(() =>
    expect(screen.getByRole('heading', { level: 1 })).not.toHaveTextContent('Reading'),
  );
  return unmount;
}
const says = () => screen.getByRole('heading', { level: 1 }).textContent?.trim();

describe('the deliveries', () => {
  it('says first what waits for a person', async () => {
    await listed(
      delivery('a', 'DONE', { DONE: 18, NEEDS_PERSON: 2 }),
      delivery('b', 'PLANNED', { PLANNED: 5 }, { confirmedAt: undefined }),
      delivery('c', 'DONE', { DONE: 20 }),
    );
    expect(says()).toBe('1 delivery needs you, 1 plan waits for your word');
    const [a, b, c] = screen.getAllByRole('link').map((l) => l.textContent);
    expect(a).toContain('18 of 20 sections done, 2 need you');
    expect(b).toContain('planned for 5 sections, waits for your word');
    expect(c).toContain('20 of 20 sections done');
  });

  it('counts them when nothing waits', async () => {
    await listed(delivery('c', 'DONE', { DONE: 1 }));
    expect(says()).toBe('1 delivery');
  });

  it('tells of a plan that is being made how far it is', async () => {
    await listed(
      delivery('p', 'PLANNING', { TO_PLAN: 3, PLANNED: 17 }, { confirmedAt: undefined }),
    );
    expect(screen.getByRole('link')).toHaveTextContent('planning, 17 of 20');
  });

  it('says how to begin when there is none', async () => {
    await listed();
    expect(screen.getByText(/Take sections in hand under/)).toBeInTheDocument();
  });

  it('says what went wrong and looks again', async () => {
    let times = 0;
    serve({
      'GET /api/deliveries': () => (times++ ? [] : refusal(503, 'The ledger is not reached.', '')),
    });
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    render(Deliveries);
    await vi.waitFor(() => expect(screen.getByText(/not reached/)).toBeInTheDocument());
    await vi.advanceTimersByTimeAsync(8_000);
    vi.useRealTimers();
    await vi.waitFor(() => expect(screen.queryByText(/not reached/)).toBeNull());
  });
});
