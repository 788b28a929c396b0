import { fireEvent, render, screen } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { refusal, serve } from '../../test/server-stand-in';
import { session } from '../frame/session.svelte';
import SignIn from './SignIn.svelte';

afterEach(() => {
  vi.unstubAllGlobals();
  session.me = null;
  session.needsFirstPerson = false;
});

async function write(label: RegExp | string, value: string) {
  await fireEvent.input(screen.getByLabelText(label), { target: { value } });
}

describe('signing in', () => {
  it('says what was wrong and keeps the address', async () => {
    vi.stubGlobal('fetch', async () =>
      refusal(401, 'Address and password do not belong together.', 'Try again.'),
    );
    render(SignIn);
    await write('Mail address', 'ines@larkmoor.example');
    await write('Password', 'wrong');
    await fireEvent.click(screen.getByRole('button', { name: 'Sign in' }));
    expect(await screen.findByText(/do not belong together/)).toBeInTheDocument();
    expect(screen.getByLabelText('Mail address')).toHaveValue('ines@larkmoor.example');
    expect(screen.getByRole('button', { name: 'Sign in' })).toBeEnabled();
    expect(session.me).toBeNull();
  });

  it('lets the first person in as administrator', async () => {
    session.needsFirstPerson = true;
    const asked = serve({
      'POST /api/first-person': {},
      'GET /api/ready': { needsFirstPerson: false },
      'GET /api/me': { name: 'Rosalind', role: 'ADMINISTRATOR' },
      'GET /api/coverage/terms': [],
    });
    const known = globalThis.fetch;
    vi.stubGlobal('fetch', async (to: Request | string, how?: RequestInit) =>
      to === '/api/sign-in' ? Response.json({}) : known(to, how),
    );
    render(SignIn);
    await write('Your name', 'Rosalind');
    await write('Mail address', 'rosalind@larkmoor.example');
    await write(/^Password, at least 10/, 'a-long-password');
    await fireEvent.click(screen.getByRole('button', { name: 'Begin' }));
    await vi.waitFor(() => expect(session.me?.name).toBe('Rosalind'));
    expect(asked[0].body).toMatchObject({ name: 'Rosalind', role: 'ADMINISTRATOR' });
    expect(session.coordinates).toBe(true);
  });
});
