import { fireEvent, render, screen } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { serve } from '../../test/server-stand-in';
import type { Schemas } from '../api/client';
import { place } from '../frame/place.svelte';
import RecipePick from './RecipePick.svelte';
import { usual } from './order';

afterEach(() => vi.unstubAllGlobals());

const recipe = (more: Partial<Schemas['Recipe']> = {}): Schemas['Recipe'] => ({
  id: 'r',
  name: 'Start of term',
  choices: { clash: 'KEEP_SECTION', twin: 'ADOPT' },
  madeBy: 'Ines',
  madeAt: '2026-09-01T08:00:00Z',
  others: ['frame'],
  gone: 0,
  used: 1,
  usedAt: '2026-09-02T08:00:00Z',
  sections: 40,
  ...more,
});

async function taken(of: Schemas['Recipe'], sections = 38, lost = 0) {
  place.go('/deliveries/new?master=m');
  serve({ 'GET /api/deliveries/recipes': [of] });
  render(RecipePick, { master: 'm', order: usual, sections, lost });
  const select = await screen.findByRole('combobox', { name: 'Recipe' });
  await fireEvent.change(select, { target: { value: 'r' } });
}

describe('a recipe', () => {
  it('brings the other masters of its order along', async () => {
    await taken(recipe());
    expect(place.get('with')).toBe('frame');
    expect(screen.queryByText(/Today differs/)).toBeNull();
    place.set({ with: '' });
    expect(await screen.findByText(/Today differs: the other masters/)).toBeInTheDocument();
  });

  it('tells of masters that are gone and items that the version has no more', async () => {
    await taken(recipe({ gone: 1 }), 38, 2);
    expect(screen.getByText(/One of its other masters is gone/)).toBeInTheDocument();
    expect(screen.getByText(/2 items that it names are not in this version/)).toBeInTheDocument();
  });

  it('tells of far fewer sections than last time', async () => {
    await taken(recipe(), 4);
    expect(screen.getByText(/It went to 40 sections the last time; now to 4/)).toBeInTheDocument();
  });
});
