import { fireEvent, render, screen } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { serve } from '../../test/server-stand-in';
import type { Schemas } from '../api/client';
import { session } from '../frame/session.svelte';
import RulesPage from './RulesPage.svelte';

const master = (id: string, code: string, yours: boolean) =>
  ({ id, code, title: code, yours, versions: [] }) as unknown as Schemas['MasterView'];
const rule = (id: string, of: string, program: string | undefined, yours: boolean) =>
  ({
    id,
    master: of,
    masterCode: of,
    masterTitle: of,
    scope: program ? 'PROGRAM' : 'EVERY_SECTION',
    program,
    sections: 38,
    yours,
  }) as Schemas['CoverageRule'];

beforeEach(() => {
  session.terms = [{ id: 't', title: 'Autumn 2026', week: 3, weeks: 15, sections: 2 }];
  session.me = {
    id: 'me',
    name: 'Ines',
    email: 'i',
    role: 'COORDINATOR',
    programs: [
      { id: 'p', name: 'Sound' },
      { id: 'q', name: 'Costume' },
    ],
    wholeCollege: false,
  };
});
afterEach(() => {
  vi.unstubAllGlobals();
  session.terms = [];
  session.me = null;
});

describe('rules of who should hold what', () => {
  it('reach no further than who makes them', async () => {
    const asked = serve({
      'GET /api/coverage/rules': [
        rule('1', 'SND', 'Sound', true),
        rule('2', 'FRAME', undefined, false),
      ],
      'GET /api/coverage/sets': [],
      'GET /api/masters': [master('s', 'SND', true), master('f', 'FRAME', false)],
      'GET /api/courses': [],
      'POST /api/coverage/rules': { id: '3' },
    });
    render(RulesPage);
    expect(await screen.findByRole('cell', { name: 'every section of Sound' })).toBeVisible();
    expect(screen.getByRole('button', { name: /End the rule for SND/ })).toBeVisible();
    expect(screen.queryByRole('button', { name: /End the rule for FRAME/ })).toBeNull();
    await fireEvent.click(await screen.findByRole('button', { name: 'Add the rule' }));
    await vi.waitFor(() =>
      expect(asked.find((c) => c.method === 'POST')?.body).toMatchObject({
        master: 's',
        program: 'p',
      }),
    );
  });
});
