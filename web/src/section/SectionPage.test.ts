import { fireEvent, render, screen, within } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Aspect, Schemas } from '../api/client';
import { hand } from '../frame/hand.svelte';
import { place } from '../frame/place.svelte';
import { refusal, serve, type Some } from '../../test/server-stand-in';
import { session } from '../frame/session.svelte';
import SectionPage from './SectionPage.svelte';

const section = {
  id: 's1',
  code: '110-01',
  title: 'Light, section 1',
  course: 'LGT 110',
  campus: 'North',
  term: 'Autumn 2026',
  instructors: '',
  students: 26,
  inRoster: false,
  shellAddress: 'http://127.0.0.1:1/shells/s1',
  arriving: [],
  unread: [],
  masters: [
    {
      master: 'm',
      code: 'LGT 110',
      title: 'Light',
      number: 2,
      newest: 3,
      expected: 3,
      held: 2,
      changed: 1,
      readAt: '2026-09-01T08:00:00Z',
    },
  ],
};
const item = (
  key: string,
  state: Schemas['ItemLine']['state'],
  changedHere: Aspect[] = [],
): Some<Schemas['ItemLine']> => ({
  master: 'm1',
  key,
  title: 'Item ' + key,
  kind: 'PAGE',
  masterCode: 'LGT 110',
  number: 2,
  at: '2026-09-01T08:00:00Z',
  by: 'Ines Dahl',
  state,
  changedHere,
});
const receipt: Some<Schemas['ReceiptLine']> = {
  number: 2,
  how: 'UPDATED',
  writes: ['WORDING'],
  at: '2026-09-01T08:00:00Z',
  by: 'Ines Dahl',
  delivery: 'd2',
};
const answers = {
  'GET /api/sections/{id}': section,
  'GET /api/sections/{id}/items': [
    item('a', 'AS_DELIVERED'),
    item('b', 'CHANGED', ['WORDING']),
    item('c', 'GONE'),
  ],
  'GET /api/sections/{id}/masters/{master}/items/{key}/receipts': [receipt],
};

beforeEach(() => {
  hand.drop();
  place.go('/sections/s1');
  session.me = { name: 'Ines Dahl', email: 'i@x.example', role: 'COORDINATOR' } as never;
});
afterEach(() => {
  vi.unstubAllGlobals();
  session.me = null;
});

describe('a section', () => {
  it('says what it holds, how far behind it is and that the roster lost it', async () => {
    serve(answers);
    render(SectionPage, { id: 's1' });
    expect(await screen.findByText(/nobody teaches it yet · 26 students/)).toHaveTextContent(
      'no longer in the roster',
    );
    expect(screen.getByRole('button', { name: /LGT 110\s*v2/ })).toHaveTextContent(
      /2 of 3 items, 1 changed here, newest is v3/,
    );
  });

  it('shows only what was changed here, and every receipt of an item', async () => {
    serve(answers);
    render(SectionPage, { id: 's1' });
    await fireEvent.click(await screen.findByRole('button', { name: /1\s*changed here$/ }));
    const list = screen.getByRole('group', { name: 'Items delivered' });
    expect(within(list).getAllByRole('button')).toHaveLength(1);
    await fireEvent.click(within(list).getByRole('button', { name: /Item b/ }));
    expect(await screen.findByText(/updated/)).toHaveTextContent(/v2\s*updated\s*\(wording\)/);
    expect(screen.getByRole('link', { name: 'in this delivery' })).toHaveAttribute(
      'href',
      '/deliveries/d2',
    );
  });

  it('finds an item by its title', async () => {
    serve(answers);
    render(SectionPage, { id: 's1' });
    await fireEvent.input(await screen.findByLabelText('Find an item'), {
      target: { value: 'item C' },
    });
    expect(screen.getByText('Item c')).toBeInTheDocument();
    expect(screen.queryByText('Item a')).toBeNull();
    expect(screen.getByText('removed')).toBeInTheDocument();
  });

  it('is taken in hand, and says why its shell could not be read', async () => {
    serve({
      ...answers,
      'POST /api/deliveries/readings': () => refusal(409, 'A delivery runs here.', 'Wait for it.'),
    });
    render(SectionPage, { id: 's1' });
    await fireEvent.click(await screen.findByRole('button', { name: 'Take it in hand' }));
    expect(hand.has('s1')).toBe(true);
    await fireEvent.click(screen.getByRole('button', { name: 'Read its shell again' }));
    expect(await screen.findByText(/A delivery runs here/)).toBeInTheDocument();
  });

  it('offers an instructor nothing that only coordinators do', async () => {
    session.me = { name: 'Agnes Pell', email: 'a@x.example', role: 'INSTRUCTOR' } as never;
    serve(answers);
    render(SectionPage, { id: 's1' });
    await screen.findByText(/26 students/);
    expect(screen.queryByRole('button', { name: /in hand|shell again/ })).toBeNull();
  });
});
