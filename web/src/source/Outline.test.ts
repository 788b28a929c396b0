import { fireEvent, render, screen } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import type { Kind } from '../api/client';
import Outline from './Outline.svelte';
import type { Node } from './tree';

const node = (key: string, kind: Kind, parent?: string): Node => ({
  key,
  kind,
  title: key.toUpperCase(),
  parent,
  shown: true,
  instructorsOnly: false,
  rule: 'ADAPTABLE',
  nobody: false,
});
const nodes = [
  node('w1', 'MODULE'),
  node('a', 'PAGE', 'w1'),
  node('b', 'QUIZ', 'w1'),
  node('w2', 'MODULE'),
];

function open(selected = '') {
  const select = vi.fn();
  const move = vi.fn();
  const remove = vi.fn();
  const rename = vi.fn();
  render(Outline, { nodes, selected, select, move, remove, rename });
  return { select, move, remove, rename, tree: screen.getByRole('tree') };
}
const shown = () => screen.getAllByRole('treeitem').map((e) => e.id);

describe('the outline', () => {
  it('says what each item is', () => {
    open();
    expect(screen.getByText('quiz')).toBeInTheDocument();
    expect(shown()).toEqual(['node-w1', 'node-a', 'node-b', 'node-w2']);
  });

  it('goes from item to item with the arrows', async () => {
    const { tree, select } = open('a');
    await fireEvent.keyDown(tree, { key: 'ArrowDown' });
    expect(select).toHaveBeenCalledWith('b');
    await fireEvent.keyDown(tree, { key: 'ArrowUp' });
    expect(select).toHaveBeenLastCalledWith('w1');
  });

  it('closes and opens a module', async () => {
    const { tree } = open('w1');
    await fireEvent.keyDown(tree, { key: 'ArrowLeft' });
    expect(shown()).toEqual(['node-w1', 'node-w2']);
    await fireEvent.keyDown(tree, { key: 'ArrowRight' });
    expect(shown()).toHaveLength(4);
  });

  it('moves an item with Alt and an arrow, and takes it out with Delete', async () => {
    const { tree, move, remove } = open('b');
    await fireEvent.keyDown(tree, { key: 'ArrowUp', altKey: true });
    expect(move).toHaveBeenCalledWith(['b'], { parent: 'w1', before: 'a' });
    await fireEvent.keyDown(tree, { key: 'Delete' });
    expect(remove).toHaveBeenCalledWith(['b']);
  });

  it('chooses several with Space, and moves or takes out all of them', async () => {
    const { tree, remove } = open('b');
    await fireEvent.keyDown(tree, { key: ' ' });
    await fireEvent.click(document.getElementById('node-a')!, { ctrlKey: true });
    await fireEvent.keyDown(tree, { key: 'Delete' });
    expect(remove).toHaveBeenCalledWith(['a', 'b']);
  });

  it('renames where it stands', async () => {
    const { tree, rename } = open('b');
    await fireEvent.keyDown(tree, { key: 'F2' });
    const field = screen.getByLabelText('Title of B');
    await fireEvent.input(field, { target: { value: 'Quiz 9' } });
    await fireEvent.keyDown(field, { key: 'Enter' });
    expect(rename).toHaveBeenCalledWith('b', 'Quiz 9');
  });

  it('finds by name and says when nothing is called that', async () => {
    open();
    const field = screen.getByLabelText('Find in this outline');
    await fireEvent.input(field, { target: { value: 'b' } });
    expect(shown()).toEqual(['node-w1', 'node-b']);
    await fireEvent.input(field, { target: { value: 'zzz' } });
    expect(screen.getByText('Nothing here is called that.')).toBeInTheDocument();
  });
});
