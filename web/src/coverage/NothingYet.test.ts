import { render, screen } from '@testing-library/svelte';
import { describe, expect, it } from 'vitest';
import NothingYet from './NothingYet.svelte';

const steps = () => screen.getAllByRole('listitem');

describe('before the first delivery', () => {
  it('offers every step where it is done', () => {
    render(NothingYet, { sections: 0, shells: 0, masters: 0 });
    expect(steps()).toHaveLength(4);
    expect(screen.getAllByRole('link').map((l) => l.getAttribute('href'))).toEqual([
      '/college',
      '/college',
      '/sources',
    ]);
    expect(steps().filter((s) => s.classList.contains('done'))).toHaveLength(0);
  });

  it('strikes out what is done and says what is there', () => {
    render(NothingYet, { sections: 4, shells: 1, masters: 0 });
    expect(steps()[0]).toHaveTextContent('4 sections.');
    expect(steps()[1]).toHaveTextContent('1 of 4 sections have a shell.');
    expect(steps().map((s) => s.classList.contains('done'))).toEqual([true, true, false, false]);
  });
});
