import type { Schemas } from '../api/client';

export type Node = Schemas['Node'];

/** A line of the outline as it is drawn. */
export interface Line {
  node: Node;
  depth: number;
  /** Number of items in it, at any depth; for modules. */
  below: number;
}

/** Where an item goes: before a sibling, or at the end of a module or of the top. */
export interface Target {
  parent?: string;
  before?: string;
}

/** Lines that are seen: nothing inside closed modules; with a text, only what matches and its modules. */
export function lines(nodes: Node[], closed: ReadonlySet<string>, text = ''): Line[] {
  const byKey = new Map(nodes.map((n) => [n.key, n]));
  const below = new Map<string, number>();
  const depth = new Map<string, number>();
  for (const n of nodes) {
    depth.set(n.key, n.parent ? (depth.get(n.parent) ?? 0) + 1 : 0);
    if (n.kind !== 'MODULE')
      for (let p = n.parent; p; p = byKey.get(p)?.parent) below.set(p, (below.get(p) ?? 0) + 1);
  }
  const wanted = text.trim().toLowerCase();
  const kept = new Set<string>();
  if (wanted)
    for (const n of nodes)
      if (n.title.toLowerCase().includes(wanted))
        for (let k: string | undefined = n.key; k; k = byKey.get(k)?.parent) kept.add(k);
  const hidden = (n: Node): boolean => {
    for (let p = n.parent; p; p = byKey.get(p)?.parent) if (closed.has(p)) return true;
    return false;
  };
  return nodes
    .filter((n) => (wanted ? kept.has(n.key) : !hidden(n)))
    .map((node) => ({ node, depth: depth.get(node.key)!, below: below.get(node.key) ?? 0 }));
}

function siblings(nodes: Node[], parent: string | undefined): Node[] {
  return nodes.filter((n) => (n.parent ?? undefined) === parent);
}

/** Where an item goes one step in a direction; nothing if it cannot. */
export function step(nodes: Node[], key: string, way: 'up' | 'down' | 'in' | 'out'): Target | null {
  const byKey = new Map(nodes.map((n) => [n.key, n]));
  const node = byKey.get(key)!;
  const parent = node.parent ?? undefined;
  const around = siblings(nodes, parent);
  const i = around.indexOf(node);
  if (way === 'up') return i > 0 ? { parent, before: around[i - 1].key } : null;
  if (way === 'down') return i < around.length - 1 ? { parent, before: around[i + 2]?.key } : null;
  if (way === 'in') {
    const into = around
      .slice(0, i)
      .reverse()
      .find((n) => n.kind === 'MODULE');
    return into ? { parent: into.key } : null;
  }
  if (!parent) return null;
  const up = byKey.get(parent)!;
  const uncles = siblings(nodes, up.parent ?? undefined);
  return { parent: up.parent ?? undefined, before: uncles[uncles.indexOf(up) + 1]?.key };
}

/** The sibling after an item; nothing if it is the last. */
export function after(nodes: Node[], node: Node): string | undefined {
  const around = siblings(nodes, node.parent ?? undefined);
  return around[around.indexOf(node) + 1]?.key;
}

/** Where an item dropped on another goes: into a module, else before it. Never into itself. */
export function dropped(nodes: Node[], key: string, on: string): Target | null {
  const byKey = new Map(nodes.map((n) => [n.key, n]));
  for (let k: string | undefined = on; k; k = byKey.get(k)?.parent) if (k === key) return null;
  const target = byKey.get(on)!;
  if (target.kind === 'MODULE' && byKey.get(key)!.kind !== 'MODULE') return { parent: on };
  return { parent: target.parent ?? undefined, before: on };
}
