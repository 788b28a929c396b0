import { api, got, Problem, type Schemas } from '../api/client';
import type { Clip } from './clip.svelte';
import { sendFile } from './editor/kept';
import type { Node, Target } from './tree';

/** A master that is open: what it holds, and the changes made to its draft. */
export class OpenMaster {
  master = $state.raw<Schemas['MasterView'] | null>(null);
  nodes = $state.raw<Node[]>([]);
  item = $state.raw<Schemas['ItemView'] | null>(null);
  /** What changed since the newest version. */
  since = $state.raw<Schemas['ChangeView'][]>([]);
  trouble = $state.raw<unknown>(null);
  /** Who else is at the draft. */
  others = $state.raw<Schemas['Other'][]>([]);
  /** What was undone or done again last. */
  turned = $state('');
  /** Another number after each change, so that what was drawn before is drawn anew. */
  stamp = $state(0);
  numbers = $derived(this.master?.versions.map((v) => v.number) ?? []);
  /** Whether the draft can be changed by who looks at it. */
  writable = $derived(!!this.master?.yours && !this.master.retiredAt);
  newest = $derived(this.master?.versions.at(-1)?.number ?? 0);

  /**
   * @param number of the version looked at; 0 is the draft
   * @param selected key of the item looked at; may be empty
   */
  constructor(
    readonly id: string,
    private readonly number: () => number,
    private readonly selected: () => string,
  ) {}

  /** The last change, and how many are under way or wait. */
  private last = Promise.resolve(true);
  private waiting = 0;

  async load() {
    const { id } = this;
    const number = this.number();
    try {
      const [master, nodes] = await Promise.all([
        got(api.GET('/api/masters/{id}', { params: { path: { id } } })),
        got(
          api.GET('/api/masters/{id}/versions/{number}/outline', {
            params: { path: { id, number } },
          }),
        ),
      ]);
      this.nodes = nodes;
      this.master = master;
      const from = this.newest;
      this.since = from
        ? await got(
            api.GET('/api/masters/{id}/changes', {
              params: { path: { id }, query: { from, to: 0 } },
            }),
          )
        : [];
    } catch (e) {
      this.trouble = e;
    }
  }

  /** Opens the item looked at; an answer that comes when another is looked at is not shown. */
  async loadItem() {
    const key = this.selected();
    const number = this.number();
    if (!key) {
      this.item = null;
      return;
    }
    try {
      const i = await got(
        api.GET('/api/masters/{id}/versions/{number}/items/{key}', {
          params: { path: { id: this.id, number, key } },
        }),
      );
      if (key === this.selected() && number === this.number()) this.item = i;
      this.trouble = null;
    } catch (e) {
      this.trouble = e;
    }
  }

  /**
   * Carries a change out, then shows what is there now. One comes after the other: what was asked for
   * while another was under way waits for it, and is not done if that one failed.
   */
  async change(call: () => Promise<unknown>) {
    const before = this.waiting ? this.last : Promise.resolve(true);
    this.waiting++;
    this.last = before
      .then((went) => went && this.carryOut(call))
      .finally(() => {
        this.waiting--;
      });
    await this.last;
  }

  private async carryOut(call: () => Promise<unknown>): Promise<boolean> {
    this.trouble = null;
    this.turned = '';
    try {
      await call();
      await this.load();
      if (this.nodes.some((n) => n.key === this.selected())) await this.loadItem();
      this.stamp++;
      return true;
    } catch (e) {
      this.trouble = e;
      return false;
    }
  }

  move(keys: string[], to: Target) {
    const params = { path: { id: this.id } };
    const body = { keys, ...to };
    return this.change(() => got(api.POST('/api/masters/{id}/draft/move', { params, body })));
  }

  /** Says what was seen, so that nobody's change is lost; where one was, it is shown. */
  async edit(body: Schemas['ItemChange']): Promise<boolean> {
    const key = this.selected();
    const then = this.item?.aspects;
    const params = { path: { id: this.id, key } };
    await this.change(() => {
      const seen = this.item?.key === key ? this.item.aspects : then;
      return got(
        api.PATCH('/api/masters/{id}/draft/items/{key}', { params, body: { ...body, seen } }),
      );
    });
    const conflict = this.trouble;
    if (conflict instanceof Problem && conflict.status === 409) {
      await this.loadItem();
      this.trouble = conflict;
    }
    return this.trouble === null;
  }

  /** Ties items to each other, or unties them. */
  tie(keys: string[], together: boolean) {
    const params = { path: { id: this.id } };
    const body = { keys, together };
    return this.change(() => got(api.POST('/api/masters/{id}/draft/tie', { params, body })));
  }

  /** Says where this page is, and learns who else is at the draft. */
  async here(writing: boolean) {
    const params = { path: { id: this.id } };
    const body = { key: this.selected(), writing };
    try {
      this.others = await got(api.POST('/api/masters/{id}/draft/here', { params, body }));
    } catch {
      this.others = []; // nobody is known to be there; the next call tells
    }
  }

  /** Keeps files and adds each as an item, into a module or at the end. */
  async addFiles(files: File[], parent: string | undefined) {
    const params = { path: { id: this.id } };
    await this.change(async () => {
      for (const f of files) {
        const kept = await sendFile(this.id, f);
        const file = { sha256: kept.sha256 ?? '', name: kept.name ?? f.name };
        const body = { kind: 'FILE' as const, title: f.name, file, parent };
        await got(api.POST('/api/masters/{id}/draft/items', { params, body }));
      }
    });
  }

  /** Deletes a version that nobody has used. */
  deleteVersion(number: number) {
    const params = { path: { id: this.id, number } };
    return this.change(() => got(api.DELETE('/api/masters/{id}/versions/{number}', { params })));
  }

  takeOut(keys: string[]) {
    const [key] = keys;
    if (keys.length > 1) {
      const params = { path: { id: this.id } };
      return this.change(() =>
        got(api.POST('/api/masters/{id}/draft/take-out', { params, body: { keys } })),
      );
    }
    const seen = this.item?.key === key ? this.item.state : '';
    const params = { path: { id: this.id, key }, query: { seen } };
    return this.change(() => got(api.DELETE('/api/masters/{id}/draft/items/{key}', { params })));
  }

  rename(key: string, title: string) {
    const params = { path: { id: this.id, key } };
    return this.change(() =>
      got(api.PATCH('/api/masters/{id}/draft/items/{key}', { params, body: { title } })),
    );
  }

  /** Takes the last step back, or does it again; what it was. */
  async turn(way: 'undo' | 'redo') {
    const params = { path: { id: this.id } };
    await this.change(async () => {
      const done = await got(
        way === 'undo'
          ? api.POST('/api/masters/{id}/draft/undo', { params })
          : api.POST('/api/masters/{id}/draft/redo', { params }),
      );
      this.turned = (way === 'undo' ? 'Taken back: ' : 'Done again: ') + done.what;
    });
  }

  /** Makes the draft what a version is. */
  restore(version: number) {
    const params = { path: { id: this.id } };
    return this.change(() =>
      got(api.POST('/api/masters/{id}/draft/restore', { params, body: { version } })),
    );
  }

  /** Puts what was cut or copied into this draft. */
  async paste(of: Clip, to: Target) {
    const params = { path: { id: this.id } };
    let put: string[] = of.keys;
    await this.change(async () => {
      if (of.cut && of.master === this.id) {
        const body = { keys: of.keys, ...to };
        await got(api.POST('/api/masters/{id}/draft/move', { params, body }));
        return;
      }
      const { master, edition, version, keys } = of;
      const body = { master, edition, version, keys, away: of.cut, ...to };
      const taken = await got(api.POST('/api/masters/{id}/draft/take-over', { params, body }));
      put = taken.keys;
    });
    return put;
  }

  freeze(note: string) {
    const params = { path: { id: this.id } };
    return this.change(() =>
      got(api.POST('/api/masters/{id}/versions', { params, body: { note } })),
    );
  }

  /** The draft in words, beside the newest version. */
  draftWords(): string {
    if (!this.newest) return 'Draft, never frozen';
    const how = (...of: Schemas['ChangeView']['how'][]) =>
      this.since.filter((c) => of.includes(c.how)).length;
    const [changed, added, gone] = [how('CHANGED', 'MOVED'), how('ADDED'), how('GONE')];
    const words = [
      changed && `${changed} changed`,
      added && `${added} added`,
      gone && `${gone} gone`,
    ];
    return `Draft: ${words.filter(Boolean).join(', ') || 'nothing changed'} since v${this.newest}`;
  }

  /** Sections that hold a version of it, and of these such as hold an older one. */
  holders(): { all: number; old: number } {
    const of = (versions: Schemas['VersionView'][]) => versions.reduce((n, v) => n + v.sections, 0);
    const versions = this.master?.versions ?? [];
    return { all: of(versions), old: of(versions.filter((v) => v.number < this.newest)) };
  }
}
