import { render, screen } from '@testing-library/svelte';
import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import ItemFacts from './ItemFacts.svelte';

const item = (more: Partial<Schemas['ItemView']>) =>
  ({
    key: 'a',
    title: 'Load',
    kind: 'PAGE',
    html: '',
    shown: true,
    attached: [],
    ...more,
  }) as Schemas['ItemView'];
const shown = (more: Partial<Schemas['ItemView']>) =>
  render(ItemFacts, { item: item(more), page: '/api/masters/m/versions/0/items/a/page?0' });

describe('an item as students see it', () => {
  it('stands in a sandbox without scripts, with its pictures', () => {
    shown({ html: '<p>Load.</p>' });
    const frame = screen.getByTitle('As students see it: Load');
    const sandbox = frame.getAttribute('sandbox')!.split(' ');
    expect(sandbox).not.toContain('allow-scripts');
    expect(sandbox).toContain('allow-same-origin');
  });

  it('lets scripts through only where its text shows a frame', () => {
    shown({ html: '<iframe src="https://film.example"></iframe>', framed: true });
    const frame = screen.getByTitle('As students see it: Load');
    expect(frame.getAttribute('sandbox')).toContain('allow-scripts');
  });

  it('shows the questions of a quiz as a page', () => {
    shown({ kind: 'QUIZ', questions: 3 });
    expect(screen.getByTitle('Questions: Load')).toBeInTheDocument();
  });

  it('is named by what it leads to or holds', () => {
    shown({ kind: 'WEB_LINK', address: 'https://maker.example' });
    expect(screen.getByText('https://maker.example')).toBeInTheDocument();
  });

  it('offers a file by its name and size', () => {
    shown({ kind: 'FILE', file: { sha256: 'ab', name: 'load table.pdf', size: 4_200_000 } });
    expect(screen.getByRole('link', { name: 'load table.pdf' })).toHaveAttribute(
      'href',
      '/api/files/ab/load%20table.pdf',
    );
    expect(screen.getByText('4.2 MB')).toBeInTheDocument();
  });
});
