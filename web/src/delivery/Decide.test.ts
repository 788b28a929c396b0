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
    expect(sent()).toEqual([{ take: 'TOGETHER', everywhere: false }]);
  });

  it('gives each section its own words where it is decided for all', async () => {
    const { sent, changed } = shown({}, together);
    expect(screen.getByRole('option', { name: /each with its own words/ })).toBeVisible();
    await fireEvent.change(screen.getByLabelText('Decide for'), { target: { value: 'all' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Take both' }));
    await vi.waitFor(() => expect(changed).toHaveBeenCalled());
    expect(sent()).toEqual([{ take: 'TOGETHER', everywhere: true }]);
  });

  it('takes a text that was written here only where the same clashes', async () => {
    const { sent, changed } = shown({}, together);
    await fireEvent.change(screen.getByLabelText('Decide for'), { target: { value: 'all' } });
    await fireEvent.click(screen.getByRole('button', { name: 'edit' }));
    expect(screen.queryByLabelText('Decide for')).toBeNull();
    const text = screen.getByLabelText('The text of both');
    await fireEvent.input(text, { target: { value: '<p>Ours.</p>' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Take both' }));
    await vi.waitFor(() => expect(changed).toHaveBeenCalled());
    expect(sent()).toEqual([{ take: 'TOGETHER', html: '<p>Ours.</p>', everywhere: false }]);
  });

  it('asks nothing where the changes do not meet, but may be told otherwise', () => {
    shown({ kind: 'UPDATE', reason: 'MERGED', aspects: { WORDING: 'MERGED' } }, together);
    expect(screen.queryByRole('button', { name: 'Take both' })).toBeNull();
    expect(screen.getByRole('button', { name: 'Section’s' })).toBeVisible();
  });

  it('hides instead of removing what students left something on', async () => {
    const { sent, changed } = shown({ kind: 'BLOCKED', reason: 'STUDENT_WORK' }, { all: 3 });
    await fireEvent.change(screen.getByLabelText('Decide for'), { target: { value: 'all' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Hide it instead' }));
    await vi.waitFor(() => expect(changed).toHaveBeenCalled());
    expect(sent()).toEqual([{ take: 'HIDE', everywhere: true }]);
  });

  it('changes grading under which students left something only by a word', async () => {
    const version = { title: 'Plot' } as Schemas['StepSides']['version'];
    const { sent, changed } = shown(
      { kind: 'BLOCKED', reason: 'STUDENT_WORK', version },
      { all: 1 },
    );
    expect(screen.getByText(/What students left stays/)).toBeVisible();
    await fireEvent.click(screen.getByRole('button', { name: 'Change the grading all the same' }));
    await vi.waitFor(() => expect(changed).toHaveBeenCalled());
    expect(sent()).toEqual([{ take: 'CHANGE_GRADING', everywhere: false }]);
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
