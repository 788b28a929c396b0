import { fireEvent, render, screen } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import App from './App.svelte';
import { refusal, serve } from '../test/server-stand-in';
import { session } from './frame/session.svelte';

beforeEach(() => {
  session.known = false;
  session.me = null;
});
afterEach(() => vi.unstubAllGlobals());

describe('opening', () => {
  it('says when the server cannot answer, and comes back without a new sign-in', async () => {
    let away = true;
    const gone = () => refusal(503, 'The database does not answer just now.', 'Try again.');
    serve({
      'GET /api/ready': { needsFirstPerson: false },
      'GET /api/me': () =>
        away ? gone() : { id: 'i', name: 'Ines Dahl', email: 'i', role: 'INSTRUCTOR' },
      'GET /api/sections/mine': [],
    });
    render(App);
    expect(await screen.findByText('The database does not answer just now.')).toBeInTheDocument();
    expect(screen.queryByLabelText('Mail address')).toBeNull();
    away = false;
    await fireEvent.click(screen.getByRole('button', { name: 'Try again now' }));
    expect(await screen.findByRole('button', { name: /Ines Dahl/ })).toBeInTheDocument();
  });

  it('asks whoever is not signed in to sign in', async () => {
    serve({
      'GET /api/ready': { needsFirstPerson: false },
      'GET /api/me': () => refusal(401, 'You are not signed in.', 'Sign in again.'),
    });
    render(App);
    expect(await screen.findByLabelText('Mail address')).toBeInTheDocument();
    expect(screen.queryByText('You are not signed in.')).toBeNull();
  });

  it('says how far data are that are still being made, until they are there', async () => {
    vi.useFakeTimers();
    let done = 3;
    serve({
      'GET /api/ready': () => ({
        needsFirstPerson: false,
        ...(done < 9 ? { making: { done, of: 9, failed: false } } : {}),
      }),
      'GET /api/me': () => refusal(401, 'You are not signed in.', 'Sign in again.'),
    });
    render(App);
    await vi.advanceTimersByTimeAsync(10);
    expect(screen.getByRole('status')).toHaveTextContent('3 of 9 parts');
    done = 4;
    await vi.advanceTimersByTimeAsync(3_000);
    expect(screen.getByRole('status')).toHaveTextContent('4 of 9 parts');
    done = 9;
    await vi.advanceTimersByTimeAsync(3_000);
    expect(screen.queryByText(/demo college/)).toBeNull();
    vi.useRealTimers();
  });
});
