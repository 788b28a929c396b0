import { fireEvent, render, screen } from '@testing-library/svelte';
import { describe, expect, it } from 'vitest';
import TextEditor from './TextEditor.svelte';

describe('the editor of a text', () => {
  it('stays at the source where that was asked for before the editor had come', async () => {
    render(TextEditor, {
      html: '<p>One.</p>',
      label: 'Text',
      change: () => {},
      upload: () => Promise.reject(new Error('none')),
    });
    await fireEvent.click(screen.getByRole('button', { name: 'Source' }));
    expect(await screen.findByRole('textbox', { name: 'Text', hidden: true })).toBeInTheDocument();
    expect(screen.getByRole('textbox', { name: 'Text, source' })).toBeInTheDocument();
  });
});
