import { render, screen } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../api/client';
import { refusal, serve } from '../../test/server-stand-in';
import MySections from './MySections.svelte';

afterEach(() => vi.unstubAllGlobals());
const master = {
  master: 'm',
  code: 'LGT 110',
  title: 'Light',
  number: 2,
  newest: 3,
  expected: 3,
  held: 3,
  changed: 2,
  readAt: '2026-09-01T08:00:00Z',
};
const section = (n: number, masters: Schemas['HeldMaster'][]) => ({
  id: 's' + n,
  code: '110-0' + n,
  title: 'Light, section ' + n,
  campus: 'North',
  term: 'Autumn 2026',
  masters,
  arriving: [],
  unread: [],
});

describe('an instructor’s sections', () => {
  it('names what each received and what was changed there', async () => {
    serve({ 'GET /api/sections/mine': [section(1, [master]), section(2, [])] });
    render(MySections);
    expect(await screen.findByRole('heading', { name: '2 sections of yours' })).toBeInTheDocument();
    const first = screen.getByRole('link', { name: /110-01/ });
    expect(first).toHaveAttribute('href', '/sections/s1');
    expect(first).toHaveTextContent(/Light, version 2.*2 items changed by you/);
    expect(screen.getByRole('link', { name: /110-02/ })).toHaveTextContent(
      'Nothing was delivered to it yet.',
    );
  });

  it('says whom to ask when there is none', async () => {
    serve({ 'GET /api/sections/mine': [] });
    render(MySections);
    expect(await screen.findByText(/Ask your coordinator/)).toBeInTheDocument();
  });

  it('says what went wrong', async () => {
    serve({ 'GET /api/sections/mine': () => refusal(503, 'The ledger is not reached.', '') });
    render(MySections);
    expect(await screen.findByText(/The ledger is not reached/)).toBeInTheDocument();
  });
});
