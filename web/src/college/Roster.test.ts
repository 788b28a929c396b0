import { fireEvent, render, screen } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import Roster from './Roster.svelte';

afterEach(() => vi.unstubAllGlobals());

const look = {
  id: 'r1',
  added: 2,
  changed: 0,
  back: 0,
  ended: 5,
  same: 3,
  programs: 0,
  campuses: 0,
  terms: 0,
  courses: 1,
  people: 0,
  teach: 0,
  leave: 0,
  stripped: 0,
  students: 0,
  endedOnes: ['110-01'],
  strippedOnes: [],
  remarks: [
    { file: 'classes.csv', line: 4, sourcedId: 'c9', problem: 'No course.', remedy: 'Mend it.' },
  ],
  asks: ['It ends 5 of 10 sections.'],
};

function server(answer: (path: string, body: unknown) => Response) {
  const asked: [string, unknown][] = [];
  vi.stubGlobal('fetch', async (path: string, init: RequestInit) => {
    asked.push([path, init.body]);
    return answer(path, init.body);
  });
  return asked;
}

async function choose() {
  const load = vi.fn(async () => {});
  render(Roster, { load });
  const file = new File(['zip'], 'autumn.zip');
  await fireEvent.change(screen.getByLabelText('OneRoster bundle'), { target: { files: [file] } });
  return load;
}

describe('a roster', () => {
  it('is seen before it is taken, and what ends much has to be meant', async () => {
    const asked = server((path) =>
      Response.json(path.endsWith('/take') ? { ...look, id: undefined } : look),
    );
    const load = await choose();
    expect(await screen.findByText('This roster would bring:')).toBeInTheDocument();
    expect(screen.getByText('It ends 5 of 10 sections.')).toBeInTheDocument();
    expect(screen.getByText(/classes.csv, line 4, c9/)).toBeInTheDocument();
    const take = screen.getByRole('button', { name: 'Take this roster in' });
    expect(take).toBeDisabled();
    expect(load).not.toHaveBeenCalled();
    await fireEvent.click(screen.getByLabelText('It is meant so.'));
    await fireEvent.click(take);
    expect(await screen.findByText('Taken in:')).toBeInTheDocument();
    expect(asked.at(-1)).toEqual(['/api/roster/r1/take', '{"despite":true}']);
    expect(load).toHaveBeenCalledOnce();
  });

  it('that cannot be read says why, and nothing is offered', async () => {
    server(() => Response.json({ detail: 'No ZIP.', remedy: 'Choose it.' }, { status: 422 }));
    await choose();
    expect(await screen.findByText('No ZIP.')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Take this roster in' })).toBeNull();
  });
});
