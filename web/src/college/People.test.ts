import { fireEvent, render, screen, within } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { refusal, serve } from '../../test/server-stand-in';
import { session } from '../frame/session.svelte';
import People from './People.svelte';

const person = (id: string, name: string, more: object = {}) => ({
  id,
  name,
  email: `${id}@x.example`,
  role: 'COORDINATOR',
  signsIn: true,
  fromRoster: false,
  programs: ['light'],
  tokens: 0,
  ...more,
});
const list = {
  people: [
    person('ines', 'Ines Dahl', { tokens: 2 }),
    person('me', 'Rosalind Ash', { role: 'ADMINISTRATOR' }),
  ],
  all: 2,
  programs: [
    { id: 'light', name: 'Lighting' },
    { id: 'sound', name: 'Sound' },
  ],
};

beforeEach(() => {
  session.me = {
    id: 'me',
    name: 'Rosalind Ash',
    email: 'r',
    role: 'ADMINISTRATOR',
    programs: [],
    wholeCollege: true,
  };
});
afterEach(() => {
  vi.unstubAllGlobals();
  session.me = null;
});

async function change(name: string) {
  render(People);
  await fireEvent.click(await screen.findByRole('button', { name: 'Change ' + name }));
}

describe('people', () => {
  it('are listed with what they reach', async () => {
    serve({ 'GET /api/people': list });
    render(People);
    const row = (await screen.findByText('Ines Dahl')).closest('tr')!;
    expect(within(row).getByText('Lighting')).toBeInTheDocument();
    expect(within(row).getByText('yes, 2 tokens')).toBeInTheDocument();
    expect(screen.getByText('Rosalind Ash (you)')).toBeInTheDocument();
    expect(screen.getByText('everything')).toBeInTheDocument();
  });

  it('get another role and other programs', async () => {
    const asked = serve({ 'GET /api/people': list, 'PUT /api/people/{id}': {} });
    await change('Ines Dahl');
    await fireEvent.change(screen.getByLabelText('Role'), { target: { value: 'DESIGNER' } });
    await fireEvent.click(screen.getByLabelText('Sound'));
    await fireEvent.click(screen.getByRole('button', { name: 'Save Ines Dahl' }));
    await vi.waitFor(() =>
      expect(asked.find((a) => a.method === 'PUT')?.body).toEqual({
        name: 'Ines Dahl',
        role: 'DESIGNER',
        programs: ['light', 'sound'],
      }),
    );
  });

  it('lose their access only after a second look, and never oneself', async () => {
    const asked = serve({ 'GET /api/people': list, 'DELETE /api/people/{id}/access': {} });
    await change('Ines Dahl');
    await fireEvent.click(screen.getByRole('button', { name: 'End access of Ines Dahl…' }));
    expect(asked.some((a) => a.method === 'DELETE')).toBe(false);
    await fireEvent.click(screen.getByRole('button', { name: 'End access' }));
    await vi.waitFor(() => expect(asked.some((a) => a.method === 'DELETE')).toBe(true));
    await fireEvent.click(await screen.findByRole('button', { name: 'Change Rosalind Ash' }));
    expect(screen.queryByRole('button', { name: /End access/ })).toBeNull();
  });

  it('are closed by Esc, wherever the focus stands', async () => {
    serve({ 'GET /api/people': list });
    await change('Ines Dahl');
    expect(screen.getByRole('button', { name: 'Save Ines Dahl' })).toBeInTheDocument();
    await fireEvent.keyDown(document.body, { key: 'Escape' });
    expect(screen.queryByRole('button', { name: 'Save Ines Dahl' })).toBeNull();
    await fireEvent.click(screen.getByRole('button', { name: 'Let somebody in' }));
    await fireEvent.keyDown(document.body, { key: 'Escape' });
    expect(screen.getByRole('button', { name: 'Let somebody in' })).toBeInTheDocument();
  });

  it('stay where the last administrator would go', async () => {
    serve({
      'GET /api/people': list,
      'PUT /api/people/{id}': () =>
        refusal(409, 'This is the last administrator.', 'Make another.'),
    });
    await change('Rosalind Ash');
    await fireEvent.click(screen.getByRole('button', { name: 'Save Rosalind Ash' }));
    expect(await screen.findByText('This is the last administrator.')).toBeInTheDocument();
  });
});
