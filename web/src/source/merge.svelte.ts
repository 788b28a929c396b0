import { api, got, type Schemas } from '../api/client';

export type Change = Schemas['ChangeOfEdition'];
export type Side = 'OURS' | 'THEIRS' | 'TOGETHER';
type Node = Schemas['Node'];

/** A line of one of the two outlines. */
export interface Line {
  node: Node;
  depth: number;
  at: number;
}

/** An outline as lines, each with how deep it stands. */
export function outlined(nodes: readonly Node[]): Line[] {
  const depth = new Map<string, number>();
  return nodes.map((node, at) => {
    const d = node.parent ? (depth.get(node.parent) ?? -1) + 1 : 0;
    depth.set(node.key, d);
    return { node, depth: d, at };
  });
}

const open = (c: Change) => ['TAKE', 'ADD', 'RETIRE', 'CLASH'].includes(c.what);

/** A newer edition beside the older one, what it does to a master, and what is decided so far. */
export class OpenMerge {
  view = $state.raw<Schemas['EditionView'] | null>(null);
  trouble = $state.raw<unknown>(null);
  /** Changes that are not to be taken. */
  left = $state.raw<ReadonlySet<string>>(new Set());
  sides = $state.raw<ReadonlyMap<string, Side>>(new Map());
  texts = $state.raw<ReadonlyMap<string, string>>(new Map());
  /** What was taken last, until something else is done. */
  taken = $state(0);
  busy = $state(false);
  /** Only what is to be taken or decided. */
  brief = $state(false);

  changes = $derived(this.view?.changes ?? []);
  byNewer = $derived(new Map(this.changes.flatMap((c) => (c.newer ? [[c.newer, c]] : []))));
  byOlder = $derived(new Map(this.changes.flatMap((c) => (c.older ? [[c.older, c]] : []))));
  shown = $derived(this.brief ? touched(this.changes) : null);
  older = $derived(
    outlined(kept(this.view?.older ?? [], this.shown && ((k) => this.byOlder.get(k)), this.shown)),
  );
  newer = $derived(
    outlined(kept(this.view?.newer ?? [], this.shown && ((k) => this.byNewer.get(k)), this.shown)),
  );
  olderAt = $derived(new Map(this.older.map((l) => [l.node.key, l.at])));
  newerAt = $derived(new Map(this.newer.map((l) => [l.node.key, l.at])));
  /** Those to take, as things stand; of clashes those of which something is taken. */
  ready = $derived(
    this.changes.filter(
      (c) =>
        open(c) &&
        !this.left.has(c.key) &&
        (c.what !== 'CLASH' || (this.sides.get(c.key) ?? 'OURS') !== 'OURS'),
    ),
  );
  undecided = $derived(
    this.changes.filter(
      (c) => c.what === 'DOUBT' || (c.what === 'CLASH' && !this.sides.has(c.key)),
    ),
  );

  constructor(
    readonly master: string,
    readonly edition: string,
  ) {}

  private get path() {
    return { id: this.master, edition: this.edition };
  }

  async load() {
    try {
      this.view = await got(
        api.GET('/api/masters/{id}/editions/{edition}', { params: { path: this.path } }),
      );
    } catch (e) {
      this.trouble = e;
    }
  }

  private async doing(call: () => Promise<unknown>): Promise<boolean> {
    this.trouble = null;
    this.busy = true;
    try {
      await call();
      await this.load();
      return true;
    } catch (e) {
      this.trouble = e;
      return false;
    } finally {
      this.busy = false;
    }
  }

  take() {
    const body = {
      keys: this.ready.map((c) => c.key),
      sides: Object.fromEntries(this.sides),
      texts: Object.fromEntries(this.texts),
    };
    return this.doing(async () => {
      const done = await got(
        api.POST('/api/masters/{id}/editions/{edition}/take', {
          params: { path: this.path },
          body,
        }),
      );
      this.taken = done.taken;
      this.sides = new Map([...this.sides].filter(([, side]) => side === 'OURS'));
      this.texts = new Map();
    });
  }

  undo() {
    return this.doing(async () => {
      await got(
        api.POST('/api/masters/{id}/draft/undo', { params: { path: { id: this.master } } }),
      );
      this.taken = 0;
    });
  }

  finish() {
    return this.doing(() =>
      got(api.POST('/api/masters/{id}/editions/{edition}/finish', { params: { path: this.path } })),
    );
  }

  /** What an item of the older edition became; nothing: it is gone. */
  decidePair(older: string, newer: string | undefined) {
    const params = { path: { ...this.path, key: older } };
    return this.doing(() =>
      got(api.PUT('/api/masters/{id}/editions/{edition}/pairs/{key}', { params, body: { newer } })),
    );
  }

  forgetPair(older: string) {
    const params = { path: { ...this.path, key: older } };
    return this.doing(() =>
      got(api.DELETE('/api/masters/{id}/editions/{edition}/pairs/{key}', { params })),
    );
  }

  decide(key: string, side: Side | undefined, text?: string) {
    const sides = new Map(this.sides);
    const texts = new Map(this.texts);
    if (side) sides.set(key, side);
    else sides.delete(key);
    if (text === undefined) texts.delete(key);
    else texts.set(key, text);
    this.sides = sides;
    this.texts = texts;
  }

  /** Takes a change or leaves it; of a module, with all that is in it. */
  choose(change: Change, taken: boolean) {
    const left = new Set(this.left);
    const inside = new Set([change.newer]);
    const keys = [change.key];
    if (change.kind === 'MODULE' && change.newer) {
      for (const n of this.view!.newer) {
        if (n.parent && inside.has(n.parent)) {
          inside.add(n.key);
          keys.push(this.byNewer.get(n.key)!.key);
        }
      }
    }
    for (const k of keys) {
      if (taken) left.delete(k);
      else left.add(k);
    }
    this.left = left;
  }
}

function touched(changes: readonly Change[]): ReadonlySet<Change> {
  return new Set(changes.filter((c) => c.what !== 'SAME'));
}

/** Of an outline the items that are shown, with the modules they stand in. */
function kept(
  nodes: readonly Node[],
  change: null | ((key: string) => Change | undefined),
  shown: ReadonlySet<Change> | null,
): readonly Node[] {
  if (!change || !shown) return nodes;
  const wanted = new Set<string>();
  for (let i = nodes.length - 1; i >= 0; i--) {
    const n = nodes[i];
    const c = change(n.key);
    if (wanted.has(n.key) || (c && shown.has(c))) {
      wanted.add(n.key);
      if (n.parent) wanted.add(n.parent);
    }
  }
  return nodes.filter((n) => wanted.has(n.key));
}
