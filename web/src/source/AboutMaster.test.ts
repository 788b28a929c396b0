import { fireEvent, render, screen } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { serve } from '../../test/server-stand-in';
import type { Schemas } from '../api/client';
import { session } from '../frame/session.svelte';
import AboutMaster from './AboutMaster.svelte';

const master = (more: object) =>
  ({
    id: 'm',
    code: 'SND 120',
    title: 'Sound',
    program: 'p',
    programName: 'Sound',
    yours: true,
    versions: [],
    ...more,
  }) as unknown as Schemas['MasterView'];
const me = (wholeCollege: boolean) =>
  ({
    id: 'me',
    name: 'Ines',
    email: 'i',
    role: 'COORDINATOR',
    programs: [{ id: 'p', name: 'Sound' }],
    wholeCollege,
  }) as Schemas['Me'];
const holders = { sections: [{ section: 'snd-1', term: 'Autumn', version: 2 }], others: 3 };

afterEach(() => {
  vi.unstubAllGlobals();
  session.me = null;
});

describe('what a master is called and how it ends', () => {
  it('says who holds it before it is retired', async () => {
    session.me = me(false);
    const asked = serve({
      'GET /api/masters/{id}/holders': holders,
      'POST /api/masters/{id}/retire': new Response(null, { status: 204 }),
    });
    const changed = vi.fn();
    render(AboutMaster, { master: master({}), changed, cancel: () => {} });
    expect(await screen.findByText(/^4 sections of this term/)).toBeVisible();
    expect(screen.getByText('snd-1 v2')).toBeVisible();
    expect(screen.getByText('3 of them are of other programs.')).toBeVisible();
    await fireEvent.click(screen.getByRole('button', { name: /^Retire it/ }));
    await vi.waitFor(() => expect(changed).toHaveBeenCalled());
    expect(asked.some((c) => c.method === 'POST')).toBe(true);
  });

  it('offers the whole college only to who reaches it', async () => {
    session.me = me(false);
    serve({ 'GET /api/masters/{id}/holders': { sections: [], others: 0 } });
    const { unmount } = render(AboutMaster, {
      master: master({}),
      changed: () => {},
      cancel: () => {},
    });
    expect(
      await screen.findByText('No section of this term or a later one holds it.'),
    ).toBeVisible();
    expect(screen.queryByRole('option', { name: 'The whole college' })).toBeNull();
    unmount();
    session.me = me(true);
    render(AboutMaster, { master: master({}), changed: () => {}, cancel: () => {} });
    expect(await screen.findByRole('option', { name: 'The whole college' })).toBeInTheDocument();
  });

  it('is somebody else’s where it is the college’s', () => {
    session.me = me(false);
    serve({ 'GET /api/masters/{id}/holders': holders });
    render(AboutMaster, {
      master: master({ program: undefined, yours: false }),
      changed: () => {},
      cancel: () => {},
    });
    expect(screen.getByText(/is the whole college’s/)).toBeVisible();
    expect(screen.queryByRole('button', { name: 'Save' })).toBeNull();
  });
});
