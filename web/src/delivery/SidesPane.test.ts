import { render, screen } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../api/client';
import { place } from '../frame/place.svelte';
import { refusal, serve, type Some } from '../../test/server-stand-in';
import SidesPane from './SidesPane.svelte';

afterEach(() => vi.unstubAllGlobals());
const detail = {
  delivery: { id: 'd', number: 3 },
  lines: [{ id: 'l1', code: '110-01', campus: 'North', instructors: 'Agnes Pell' }],
} as Schemas['DeliveryDetail'];
const item = (html: string): Some<Schemas['ItemView']> => ({
  key: 'a',
  title: 'Load',
  kind: 'PAGE',
  html,
  shown: true,
});
const clash: Some<Schemas['StepSides']> = {
  kind: 'CLASH',
  reason: 'BOTH_MOVED',
  aspects: { WORDING: 'CLASH_KEPT', VISIBILITY: 'SAME' },
  version: item('<p>It carries 2,400 watts.</p>'),
  here: item('<p>It carries 1,920 watts.</p>'),
  before: item('<p>It carries many watts.</p>'),
};

function opened(step: Some<Schemas['StepSides']> | Response) {
  serve({ 'GET /api/deliveries/{id}/lines/{line}/steps/{key}': step });
  place.go('/deliveries/d?line=l1&item=a');
  render(SidesPane, { detail });
}

describe('the sides of a step', () => {
  it('puts version, section and what was delivered side by side, with what each added', async () => {
    opened(clash);
    expect(await screen.findByRole('heading', { name: 'Load' })).toBeInTheDocument();
    const texts = screen.getAllByRole('heading', { level: 3 }).map((h) => h.textContent);
    expect(texts).toEqual(['Version 3', 'In the section', 'Delivered before']);
    const added = [...document.querySelectorAll('ins')].map((i) => i.textContent);
    expect(added).toEqual(['2,400', '1,920'].map((w) => expect.stringContaining(w)));
    expect(screen.getByText('both moved; the section’s stays')).toBeInTheDocument();
  });

  it('says that the section does not hold what is new', async () => {
    opened({ kind: 'ADD', reason: 'NEW_IN_VERSION', aspects: {}, version: item('<p>New.</p>') });
    expect(await screen.findByText('The section does not hold it.')).toBeInTheDocument();
  });

  it('explains the marks while no step is chosen', () => {
    serve({});
    place.go('/deliveries/d');
    render(SidesPane, { detail });
    expect(screen.getByRole('group', { name: 'Legend' })).toHaveTextContent(
      'nothing before a person decides',
    );
  });

  it('says why a step cannot be shown', async () => {
    opened(refusal(404, 'This step is no longer there.', 'Plan again.'));
    expect(await screen.findByText(/no longer there/)).toBeInTheDocument();
  });
});
