import { fireEvent, render, screen } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../api/client';
import Search from './Search.svelte';
import { place } from './place.svelte';
import { refusal, serve } from '../../test/server-stand-in';

beforeEach(() => place.go('/coverage'));
afterEach(() => vi.unstubAllGlobals());
const hits: Schemas['Hit'][] = [
  { name: '110-01 Light', subject: 'SECTION', beside: 'Autumn 2026', address: '/sections/s1' },
  { name: 'LGT 110 Light', subject: 'MASTER', beside: '', address: '/sources/masters/m' },
];

async function looking(text: string) {
  render(Search);
  const field = screen.getByRole('combobox');
  await fireEvent.focus(field);
  await fireEvent.input(field, { target: { value: text } });
  return field;
}

describe('search', () => {
  it('asks once for what was typed, and opens what is chosen with the keys', async () => {
    const asked = serve({ 'GET /api/search': hits });
    const field = await looking('li');
    await fireEvent.input(field, { target: { value: 'light' } });
    expect(await screen.findByText('110-01 Light')).toBeVisible();
    expect(asked).toHaveLength(1);
    await fireEvent.keyDown(field, { key: 'ArrowDown' });
    expect(screen.getByRole('option', { selected: true })).toHaveTextContent('LGT 110 Light');
    await fireEvent.keyDown(field, { key: 'Enter' });
    expect(place.path).toBe('/sources/masters/m');
    expect(field).toHaveValue('');
  });

  it('opens the first hit when Enter came before the answer', async () => {
    serve({ 'GET /api/search': hits });
    const field = await looking('light');
    await fireEvent.keyDown(field, { key: 'Enter' });
    await vi.waitFor(() => expect(place.path).toBe('/sections/s1'));
  });

  it('says that nothing was found only when it has looked', async () => {
    serve({ 'GET /api/search': [] });
    await looking('zzz');
    expect(screen.getByText('Looking …')).toBeVisible();
    expect(await screen.findByText('Nothing found.')).toBeVisible();
  });

  it('says why it could not look', async () => {
    serve({ 'GET /api/search': () => refusal(503, 'The ledger is not reached.', 'Try again.') });
    await looking('light');
    expect(await screen.findByText(/The ledger is not reached/)).toBeVisible();
  });

  it('is reached from anywhere with a stroke, but not out of a text', async () => {
    render(Search);
    const field = screen.getByRole('combobox');
    await fireEvent.keyDown(document.body, { key: '/' });
    expect(field).toHaveFocus();
    field.blur();
    const text = document.body.appendChild(document.createElement('textarea'));
    await fireEvent.keyDown(text, { key: '/' });
    expect(field).not.toHaveFocus();
    text.remove();
  });

  it('groups what it found by subject and tells sections of one name by their term', async () => {
    serve({
      'GET /api/search': [
        hits[0],
        { ...hits[0], beside: 'Spring 2026', address: '/sections/s0' },
        hits[1],
      ],
    });
    await looking('light');
    expect(await screen.findByText('Sections')).toBeVisible();
    expect(screen.getByText('Masters')).toBeVisible();
    expect(screen.getAllByRole('option').map((o) => o.textContent)).toEqual([
      '110-01 Light Autumn 2026',
      '110-01 Light Spring 2026',
      'LGT 110 Light ',
    ]);
  });
});
