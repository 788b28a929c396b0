import { fireEvent, render, screen } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../api/client';
import { serve } from '../../test/server-stand-in';
import Decide from './Decide.svelte';

afterEach(() => vi.unstubAllGlobals());

function shown(more: Partial<Schemas['StepSides']>, decide: Partial<Schemas['ToDecide']>) {
  const asked = serve({
    'PUT /api/deliveries/{id}/lines/{line}/steps/{key}/decision': { sections: 2 },
  });
  const changed = vi.fn();
  const sides = {
    kind: 'CLASH',
    reason: 'BOTH_MOVED',
    aspects: { WORDING: 'CLASH_KEPT' },
    ...more,
    decide: { alike: 2, all: 5, clean: true, ...decide },
  } as Schemas['StepSides'];
  render(Decide, { delivery: 'd', line: 'l', item: 'a', number: 3, sides, changed });
  return { sent: () => asked.map((a) => a.body), changed };
}

const together = {
  together: [
    { whose: 'BASE', text: 'A circuit carries ' },
    { whose: 'THEIRS', text: '1,920 watts.' },
  ] as Schemas['SideRun'][],
  html: '<p>A circuit carries 1,920 watts.</p>',
};

describe('what is to be decided', () => {
  it('takes both texts in all sections with the same clash', async () => {
    const { sent, changed } = shown({}, together);
    expect(screen.getByText('1,920 watts.')).toBeInTheDocument();
    expect(screen.getByRole('option', { name: '2 sections with the same clash' })).toBeVisible();
    await fireEvent.click(screen.getByRole('button', { name: 'Take both' }));
    await vi.waitFor(() => expect(changed).toHaveBeenCalled());
    expect(sent()).toEqual([{ take: 'TOGETHER', html: together.html, everywhere: false }]);
  });

  it('takes the text as it was edited, in all sections', async () => {
    const { sent, changed } = shown({}, together);
    await fireEvent.change(screen.getByLabelText('Decide for'), { target: { value: 'all' } });
    await fireEvent.click(screen.getByRole('button', { name: 'edit' }));
    const text = screen.getByLabelText('The text of both');
    await fireEvent.input(text, { target: { value: '<p>Ours.</p>' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Take both' }));
    await vi.waitFor(() => expect(changed).toHaveBeenCalled());
    expect(sent()).toEqual([{ take: 'TOGETHER', html: '<p>Ours.</p>', everywhere: true }]);
  });

  it('asks otherwise of a twin, and takes a decision back', async () => {
    const { sent, changed } = shown({ kind: 'TWIN' }, { all: 1, take: 'LEAVE' });
    expect(screen.getByText(/it is left alone/)).toBeInTheDocument();
    expect(screen.queryByLabelText('Decide for')).toBeNull();
    await fireEvent.click(screen.getByRole('button', { name: 'Take it back' }));
    await vi.waitFor(() => expect(changed).toHaveBeenCalled());
    expect(sent()).toEqual([{ everywhere: false }]);
  });
});
