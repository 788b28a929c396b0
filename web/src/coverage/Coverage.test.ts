import { fireEvent, render, screen } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { hand } from '../frame/hand.svelte';
import { place } from '../frame/place.svelte';
import { refusal, serve } from '../../test/server-stand-in';
import { session } from '../frame/session.svelte';
import Coverage from './Coverage.svelte';

const section = (n: number, campus: string) => ({
  id: 's' + n,
  code: '110-0' + n,
  title: 'Light, section ' + n,
  course: 'LGT 110',
  campus,
  instructors: 'Agnes Pell',
  shell: true,
  inRoster: true,
});
const versions = [1, 2].map((number) => ({ id: 'v' + number, number, note: 'N', frozenAt: '' }));
const coverage = (number: number[]) => ({
  sections: [section(1, 'North'), section(2, 'Quay')],
  masters: [{ id: 'm', code: 'LGT 110', title: 'Light', everySection: false, versions }],
  unread: [],
  standings: [
    {
      section: [0, 1],
      number,
      expected: [5, 5],
      held: number.map((n) => (n ? 5 : 0)),
      changed: [0, 0],
      wanted: [2, 2, 2, 2],
      needsPerson: [],
    },
  ],
});

beforeEach(() => {
  hand.drop();
  place.go('/coverage');
  session.terms = [{ id: 't', title: 'Autumn 2026', week: 3, weeks: 15, sections: 2 }];
  session.me = { name: 'Ines Dahl', role: 'COORDINATOR' } as never;
});
afterEach(() => {
  vi.unstubAllGlobals();
  session.terms = [];
  session.me = null;
});

describe('coverage', () => {
  it.each([
    [[2, 1], '1 of 2 sections is behind'],
    [[2, 0], '1 of 2 sections never received a master'],
    [[2, 2], '2 sections, all in step'],
  ])('says first what matters: %j', async (held, words) => {
    serve({ 'GET /api/coverage': coverage(held) });
    render(Coverage);
    expect(await screen.findByRole('heading', { level: 1, name: words })).toBeInTheDocument();
  });

  it('counts anew under a filter, and says when nothing is left', async () => {
    serve({ 'GET /api/coverage': coverage([1, 2]) });
    render(Coverage);
    await screen.findByText('1 of 2 sections is behind');
    await fireEvent.change(screen.getByLabelText('All campuses'), { target: { value: 'Quay' } });
    expect(screen.getByRole('heading', { level: 1 })).toHaveTextContent('1 section, all in step');
    await fireEvent.click(screen.getByRole('button', { name: /behind$/ }));
    expect(screen.getByText(/No section is like this/)).toBeInTheDocument();
  });

  it('has no filters before there is anything to filter', async () => {
    serve({ 'GET /api/coverage': { sections: [], masters: [], standings: [], unread: [] } });
    render(Coverage);
    expect(await screen.findByText('Four steps to the first delivery')).toBeInTheDocument();
    expect(screen.queryByLabelText('All campuses')).toBeNull();
  });

  it('says what went wrong and what to do', async () => {
    serve({ 'GET /api/coverage': () => refusal(500, 'The ledger did not answer.', 'Try again.') });
    render(Coverage);
    expect(await screen.findByText(/The ledger did not answer/)).toBeInTheDocument();
  });

  it('calls a college empty only when the server has said so', async () => {
    session.terms = [];
    session.termsKnown = false;
    serve({});
    render(Coverage);
    expect(screen.getByRole('heading', { level: 1 })).toHaveTextContent('Reading the ledger');
    expect(screen.queryByText('Four steps to the first delivery')).toBeNull();
    session.termsKnown = true;
    expect(await screen.findByText('Four steps to the first delivery')).toBeInTheDocument();
  });
});
