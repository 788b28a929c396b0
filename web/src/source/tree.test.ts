import { describe, expect, it } from 'vitest';
import type { Kind } from '../api/client';
import { dropped, lines, step, type Node } from './tree';

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
  node('c', 'PAGE', 'w2'),
];

describe('the outline', () => {
  it('draws nothing inside a closed module, and counts what is in it', () => {
    const seen = lines(nodes, new Set(['w1']));
    expect(seen.map((l) => l.node.key)).toEqual(['w1', 'w2', 'c']);
    expect(seen[0].below).toBe(2);
    expect(seen[2].depth).toBe(1);
  });

  it('finds by text, with the modules around it, open or not', () => {
    expect(lines(nodes, new Set(['w2']), 'c').map((l) => l.node.key)).toEqual(['w2', 'c']);
  });

  it('moves up and down among siblings and stops at the ends', () => {
    expect(step(nodes, 'b', 'up')).toEqual({ parent: 'w1', before: 'a' });
    expect(step(nodes, 'a', 'down')).toEqual({ parent: 'w1', before: undefined });
    expect(step(nodes, 'a', 'up')).toBeNull();
  });

  it('moves into the module above and out behind its own', () => {
    expect(step(nodes, 'w2', 'in')).toEqual({ parent: 'w1' });
    expect(step(nodes, 'a', 'out')).toEqual({ parent: undefined, before: 'w2' });
    expect(step(nodes, 'w1', 'out')).toBeNull();
  });

  it('drops an item into a module, before an item, and never into itself', () => {
    expect(dropped(nodes, 'c', 'w1')).toEqual({ parent: 'w1' });
    expect(dropped(nodes, 'c', 'b')).toEqual({ parent: 'w1', before: 'b' });
    expect(dropped(nodes, 'w1', 'a')).toBeNull();
  });
});
