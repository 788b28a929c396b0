import { fireEvent, render, screen } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { refusal, serve } from '../../test/server-stand-in';
import Platforms from './Platforms.svelte';

afterEach(() => vi.unstubAllGlobals());

const practice = { id: 'p', name: 'Practice', address: 'http://127.0.0.1:1', sections: 3 };
const two = {
  platforms: [practice],
  withoutShell: 2,
  unheld: [
    { sourcedId: 's1', code: '140-01', title: 'Rigging, section 1' },
    { sourcedId: 's2', code: '140-02', title: 'Rigging, section 2' },
  ],
};
const look = () => fireEvent.click(screen.getByRole('button', { name: /Look for new shells/ }));

describe('platforms', () => {
  it('names the sections without a shell under the ids that their shells must have', () => {
    render(Platforms, { platforms: two, admin: false, load: vi.fn() });
    expect(screen.getByText('2 sections have no shell')).toBeInTheDocument();
    expect(document.querySelector('pre')?.textContent).toBe(
      's1, Rigging, section 1\ns2, Rigging, section 2',
    );
  });

  it('says how many sections found their shell, and reads the list again', async () => {
    serve({ 'POST /api/platforms/{id}/ties': { sections: 5, withoutShell: 0 } });
    const load = vi.fn();
    render(Platforms, { platforms: two, admin: false, load });
    await look();
    expect(await screen.findByText('2 sections found their shell.')).toBeInTheDocument();
    expect(load).toHaveBeenCalledOnce();
  });

  it('says why a platform could not be looked at', async () => {
    serve({
      'POST /api/platforms/{id}/ties': () =>
        refusal(400, 'The platform does not answer.', 'Look at its address.'),
    });
    render(Platforms, { platforms: two, admin: false, load: vi.fn() });
    await look();
    expect(await screen.findByText(/does not answer/)).toBeInTheDocument();
    expect(screen.getByRole('button', { name: /Look for new shells/ })).toBeEnabled();
  });

  it('without any says what is missing and who can name it', () => {
    render(Platforms, {
      platforms: { platforms: [], withoutShell: 0, unheld: [] },
      admin: false,
      load: vi.fn(),
    });
    expect(screen.getByText(/No platform yet; an administrator names it/)).toBeInTheDocument();
  });
});
