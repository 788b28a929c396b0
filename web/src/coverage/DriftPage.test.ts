import { fireEvent, render, screen } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { serve } from '../../test/server-stand-in';
import type { Schemas } from '../api/client';
import { hand } from '../frame/hand.svelte';
import { place } from '../frame/place.svelte';
import { session } from '../frame/session.svelte';
import DriftPage from './DriftPage.svelte';

afterEach(() => {
  vi.unstubAllGlobals();
  hand.drop();
  session.terms = [];
});

describe('what sections did with a master', () => {
  it('gathers what they added by hand, and takes those sections in hand', async () => {
    session.terms = [{ id: 't', title: 'Autumn 2026', week: 3, weeks: 15, sections: 2 }];
    place.go('/coverage/drift/m?view=added');
    serve({
      'GET /api/masters/{id}': { id: 'm', code: 'LGT 110' } as Schemas['MasterView'],
      'GET /api/coverage/masters/{id}/drift': [],
      'GET /api/coverage/masters/{id}/added': [
        { kind: 'PAGE', title: 'Office hours', sections: ['a', 'b'] },
      ],
    });
    render(DriftPage, { id: 'm' });
    expect(await screen.findByText('Added by hand: 1 item')).toHaveAttribute(
      'aria-current',
      'page',
    );
    const take = await screen.findByRole('button', {
      name: 'Take in hand the sections with Office hours',
    });
    await fireEvent.click(take);
    expect([...hand.sections]).toEqual(['a', 'b']);
  });
});
