import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { serve } from '../../test/server-stand-in';
import NamedParts from './NamedParts.svelte';
import { usual, type Order } from './order';

afterEach(() => vi.unstubAllGlobals());

const set = {
  id: 's',
  name: 'Mine to spare',
  kinds: ['DISCUSSION' as const],
  titles: ['syllabus'],
  madeBy: 'Ines',
  mine: true,
};

function shown(order: Order = usual) {
  const say = vi.fn();
  const forecast = {
    rows: [
      { key: 'w', title: 'Week 1', kind: 'MODULE' as const, chosen: 1, inVersion: true },
      { key: 'h', title: 'Help desk', kind: 'PAGE' as const, chosen: 1, inVersion: true },
      { key: 'o', title: 'Other', kind: 'PAGE' as const, chosen: 0, inVersion: true },
    ],
  };
  const calls = serve({
    'GET /api/deliveries/part-sets': [set],
    'POST /api/deliveries/forecast': forecast,
    'POST /api/deliveries/part-sets': { id: 'n' },
    'PUT /api/deliveries/part-sets/{partSet}': {},
  });
  render(NamedParts, { order, say, version: 'v', sections: ['1'] });
  return { say, calls };
}

describe('sets of parts', () => {
  it('are brought alone, or left out, whatever was said before', async () => {
    const { say } = shown({ ...usual, what: 'SOME', items: ['x'] });
    await fireEvent.click(await screen.findByText('Bring only these'));
    expect(say).toHaveBeenLastCalledWith(
      expect.objectContaining({ what: 'SOME', kinds: ['DISCUSSION'], titles: ['syllabus'] }),
    );
    await fireEvent.click(screen.getByText('Leave them out'));
    expect(say).toHaveBeenLastCalledWith(
      expect.objectContaining({ what: 'EVERYTHING', withoutTitles: ['syllabus'] }),
    );
  });

  it('are taken back where they are left out', async () => {
    const order = { ...usual, withoutKinds: ['DISCUSSION'], withoutTitles: ['syllabus'] } as const;
    const { say } = shown(order);
    await fireEvent.click(await screen.findByText('Bring them again'));
    expect(say).toHaveBeenCalledWith({ without: [], withoutKinds: [], withoutTitles: [] });
  });

  it('are said otherwise under their name', async () => {
    const { calls } = shown();
    await fireEvent.click(await screen.findByText('Change it'));
    expect(screen.getByRole('textbox', { name: 'Name of the set' })).toHaveValue('Mine to spare');
    const titles = screen.getByRole('textbox', { name: 'Titles with these words' });
    await fireEvent.input(titles, { target: { value: 'syllabus, calendar' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Keep the set' }));
    await waitFor(() => expect(screen.getByText('Keep a set')).toBeInTheDocument());
    expect(calls.find((c) => c.method === 'PUT')?.body).toEqual({
      name: 'Mine to spare',
      kinds: ['DISCUSSION'],
      titles: ['syllabus', 'calendar'],
    });
  });

  it('tell what they would name here before they are kept', async () => {
    shown();
    await fireEvent.click(screen.getByText('Keep a set'));
    expect(screen.getByRole('button', { name: 'Keep the set' })).toBeDisabled();
    const titles = screen.getByRole('textbox', { name: 'Titles with these words' });
    await fireEvent.input(titles, { target: { value: 'help, ' } });
    expect(await screen.findByText('Names 1 item of this version: Help desk.')).toBeVisible();
    await fireEvent.input(screen.getByRole('textbox', { name: 'Name of the set' }), {
      target: { value: 'Help' },
    });
    await fireEvent.click(screen.getByRole('button', { name: 'Keep the set' }));
    await waitFor(() => expect(screen.getByText('Keep a set')).toBeInTheDocument());
  });
});
