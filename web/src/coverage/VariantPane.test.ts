import { fireEvent, render, screen } from '@testing-library/svelte';

import { afterEach, describe, expect, it, vi } from 'vitest';
import { serve } from '../../test/server-stand-in';
import VariantPane from './VariantPane.svelte';
import { aspects, groups, type Variants } from './variants';

afterEach(() => vi.unstubAllGlobals());

const read = (): Variants => ({
  masterCode: 'LGT',
  kind: 'PAGE',
  title: 'Brief',
  rule: 'ADAPTABLE',
  newest: 1,
  versions: [{ number: 1, forms: [0, 1, 1, 1, 1, 1], view: null as never }],
  sections: [
    {
      section: 's1',
      code: 'a',
      campus: 'Quay',
      instructors: 'J',
      number: 1,
      here: [5, 1, 1, 1, 1, 1],
      changed: ['WORDING'],
      accepted: [],
    },
  ],
  views: [],
});
const group = () => groups(read(), aspects('')).find((g) => g.what === 'own')!;

describe('a form of an item', () => {
  it('still tells what was done with it when it is read again', async () => {
    serve({ 'POST /api/coverage/masters/{id}/items/{key}/accept': { sections: 1 } });
    const props = { variants: read(), group: group(), master: 'm', item: 'i', changed: () => {} };
    const { rerender } = render(VariantPane, props);
    await fireEvent.click(screen.getByRole('button', { name: /Accept it here/ }));
    expect(await screen.findByText(/Accepted in 1 section/)).toBeInTheDocument();
    await rerender({ ...props, variants: read(), group: group() });
    expect(screen.getByText(/Accepted in 1 section/)).toBeInTheDocument();
  });
});
