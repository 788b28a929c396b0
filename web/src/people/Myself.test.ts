import { fireEvent, render, screen, within } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { refusal, serve } from '../../test/server-stand-in';
import Password from './Password.svelte';
import Record from './Record.svelte';
import Tokens from './Tokens.svelte';

afterEach(() => vi.unstubAllGlobals());

const token = (more = {}) => ({
  id: 't1',
  name: 'Nightly report',
  scopes: ['READ'],
  madeAt: '2026-09-01T08:00:00Z',
  expiresAt: '2126-09-01T08:00:00Z',
  ...more,
});

describe('tokens', () => {
  it('says what each may, when it ends and whether it was used', async () => {
    serve({
      'GET /api/me/tokens': [
        token(),
        token({ id: 't2', name: 'Old', expiresAt: '2020-01-02T08:00:00Z' }),
      ],
    });
    render(Tokens);
    const row = (await screen.findByRole('cell', { name: 'Nightly report' })).closest('tr')!;
    expect(row).toHaveTextContent(/look at what you may see.*1 September 2126.*never/);
    expect(screen.getByRole('cell', { name: 'Old' }).closest('tr')).toHaveTextContent(
      'ended 2 January 2020',
    );
  });

  it('shows a new token once', async () => {
    const asked = serve({
      'GET /api/me/tokens': [],
      'POST /api/me/tokens': { token: 'zm_secret' },
    });
    render(Tokens);
    expect(await screen.findByText('You have none.')).toBeInTheDocument();
    await fireEvent.input(screen.getByLabelText('What it is for'), { target: { value: 'Report' } });
    await fireEvent.click(screen.getByLabelText('plan and run deliveries'));
    await fireEvent.click(screen.getByRole('button', { name: 'Make a token' }));
    expect(await screen.findByText('zm_secret')).toBeInTheDocument();
    expect(asked.find((a) => a.method === 'POST')?.body).toEqual({
      name: 'Report',
      scopes: ['READ', 'DELIVER'],
      days: 90,
    });
    await fireEvent.click(screen.getByRole('button', { name: 'I have it' }));
    expect(screen.queryByText('zm_secret')).toBeNull();
  });

  it('cannot be made without a scope', async () => {
    serve({ 'GET /api/me/tokens': [] });
    render(Tokens);
    await fireEvent.click(screen.getByLabelText('look at what you may see'));
    expect(screen.getByRole('button', { name: 'Make a token' })).toBeDisabled();
  });

  it('ends one by its name', async () => {
    const asked = serve({ 'GET /api/me/tokens': [token()], 'DELETE /api/me/tokens/{id}': {} });
    render(Tokens);
    await fireEvent.click(await screen.findByRole('button', { name: /^End\s*Nightly report$/ }));
    expect(asked.map((a) => a.method)).toContain('DELETE');
  });
});

describe('the password', () => {
  const fill = async () => {
    await fireEvent.input(screen.getByLabelText('Old password'), { target: { value: 'before' } });
    await fireEvent.input(screen.getByLabelText(/New password/), {
      target: { value: 'quite long now' },
    });
    await fireEvent.click(screen.getByRole('button', { name: 'Change it' }));
  };

  it('says that other sessions ended', async () => {
    serve({ 'POST /api/me/password': {} });
    render(Password);
    await fill();
    expect(await screen.findByRole('status')).toHaveTextContent('signed out everywhere else');
  });

  it('keeps what was typed when it is refused, and says why', async () => {
    serve({
      'POST /api/me/password': () => refusal(400, 'The old password is another.', 'Type it again.'),
    });
    render(Password);
    await fill();
    expect(await screen.findByText(/The old password is another/)).toBeInTheDocument();
    expect(screen.getByText(/Type it again/)).toBeInTheDocument();
    expect(screen.getByLabelText('Old password')).toHaveValue('before');
  });
});

describe('the record', () => {
  const deed = (id: number, at: string) => ({
    id,
    at,
    person: 'Ines Dahl',
    what: 'froze',
    subject: 'LGT 110',
    detail: 'version ' + id,
  });

  it('stands under its days, newest first', async () => {
    serve({
      'GET /api/record': [
        deed(3, '2026-09-02T10:00:00'),
        deed(2, '2026-09-02T09:00:00'),
        deed(1, '2026-09-01T09:00:00'),
      ],
    });
    render(Record);
    await screen.findByText('version 3');
    const lines = within(screen.getByRole('list')).getAllByText(/September|version/);
    expect(lines.map((l) => l.textContent)).toEqual([
      'Wednesday 2 September',
      'version 3',
      'version 2',
      'Tuesday 1 September',
      'version 1',
    ]);
  });

  it('leads to what it tells of', async () => {
    serve({
      'GET /api/record': [
        {
          ...deed(1, '2026-09-02T10:00:00'),
          what: 'confirmed delivery of',
          subject: 'LGT 110, version 3',
          detail: '4 sections',
          leadsTo: '/deliveries/d1',
        },
      ],
    });
    render(Record);
    expect(await screen.findByRole('link', { name: 'LGT 110, version 3' })).toHaveAttribute(
      'href',
      '/deliveries/d1',
    );
    expect(screen.getByText('4 sections')).toBeInTheDocument();
  });

  it('says when nothing is found', async () => {
    serve({ 'GET /api/record': [] });
    render(Record);
    expect(await screen.findByText('Nothing has been done yet.')).toBeInTheDocument();
  });
});
