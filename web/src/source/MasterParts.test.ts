import { fireEvent, render, screen } from '@testing-library/svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { place } from '../frame/place.svelte';
import Freeze from './Freeze.svelte';
import Trail from './Trail.svelte';

const versions = Array.from({ length: 9 }, (_, i) => ({
  id: 'v' + (i + 1),
  number: i + 1,
  note: 'Note ' + (i + 1),
  frozenAt: '2026-09-0' + (i + 1) + 'T08:00:00Z',
  items: 40,
  sections: i === 8 ? 12 : 0,
  by: 'Ines Dahl',
}));

describe('the trail', () => {
  beforeEach(() => place.go('/sources/masters/m'));

  it('shows the last seven versions, who holds them, and the draft; the earlier on request', async () => {
    render(Trail, { versions, number: 0, draft: 'Draft: 2 changed since v9' });
    const words = screen
      .getAllByRole('button')
      .map((b) => b.textContent?.replace(/\s+/g, ' ').trim());
    expect(words).toHaveLength(9);
    expect(words[0]).toBe('2 earlier');
    expect(words[1]).toMatch(/^v3 · /);
    expect(words[7]).toMatch(/12 sections$/);
    expect(screen.getByRole('button', { name: /Draft/ })).toHaveAttribute('aria-pressed', 'true');
    await fireEvent.click(screen.getByRole('button', { name: '2 earlier' }));
    expect(screen.getByTitle('Note 1')).toBeInTheDocument();
  });

  it('opens a version together with what changed since the one before', async () => {
    render(Trail, { versions, number: 0, draft: 'Draft' });
    await fireEvent.click(screen.getByTitle('Note 5'));
    expect([place.get('version'), place.get('from'), place.get('to')]).toEqual(['5', '4', '5']);
  });
});

const answer = (body: unknown) =>
  vi
    .spyOn(globalThis, 'fetch')
    .mockImplementation(() =>
      Promise.resolve(
        new Response(JSON.stringify(body), { headers: { 'Content-Type': 'application/json' } }),
      ),
    );

describe('freezing', () => {
  it('asks what is new and sends it', async () => {
    const freeze = vi.fn();
    answer([]);
    render(Freeze, { id: 'm', number: 4, stamp: 0, freeze, lead: vi.fn(), cancel: vi.fn() });
    const note = screen.getByLabelText(/What is new in version 4/);
    expect(note).toHaveFocus();
    await fireEvent.input(note, { target: { value: 'Safer rigging' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Freeze it' }));
    expect(freeze).toHaveBeenCalledWith('Safer rigging');
  });

  it('lists what wants a look, and does not offer what would be refused', async () => {
    const lead = vi.fn();
    const places = [{ key: 'k1', title: 'Loads', detail: '2 references' }];
    const words = 'References that lead nowhere';
    answer([
      { rule: 'DEAD_LINK', words, remedy: 'Choose another.', stops: false, places },
      { rule: 'GUARD', words: 'Too much', remedy: 'Take it out.', stops: true, places },
    ]);
    render(Freeze, { id: 'm', number: 4, stamp: 0, freeze: vi.fn(), lead, cancel: vi.fn() });
    await screen.findByText(/2 places want a look/);
    expect(screen.getByRole('button', { name: 'Freeze it' })).toBeDisabled();
    await fireEvent.click(screen.getAllByRole('button', { name: 'Loads' })[0]);
    expect(lead).toHaveBeenCalledWith('k1');
  });
});
