import { api, got, type Schemas } from '../api/client';
import { session } from '../frame/session.svelte';
import type { Filter, Sec } from './model';

export type SectionSet = Schemas['SectionSet'];

/** Saved choices of sections, as they were read last. */
class Sets {
  all = $state.raw<SectionSet[]>([]);

  async load() {
    const term = session.term?.id;
    if (term) this.all = await got(api.GET('/api/coverage/sets', { params: { query: { term } } }));
  }

  /** Ids of the sections of a set in the term one works in. */
  async sections(set: string): Promise<string[]> {
    const term = session.term?.id;
    if (!term) return [];
    const params = { path: { set }, query: { term } };
    return got(api.GET('/api/coverage/sets/{set}/sections', { params }));
  }

  async keep(name: string, what: { sections: string[] } | { filter: Filter }) {
    await got(api.POST('/api/coverage/sets', { body: { name, ...what } }));
    await this.load();
  }

  async end(set: string) {
    await got(api.DELETE('/api/coverage/sets/{set}', { params: { path: { set } } }));
    await this.load();
  }
}

export const sets = new Sets();

/** What a filter says, in words. */
export function filterWords(f: Partial<Record<keyof Filter, string>>): string {
  return [
    f.course,
    f.campus && `at ${f.campus}`,
    f.instructor && `taught by ${f.instructor}`,
    f.text && `with “${f.text}”`,
  ]
    .filter(Boolean)
    .join(', ');
}

/** Those of sections that are among these. */
export function among<T extends { section: Sec }>(all: readonly T[], ids: readonly string[]): T[] {
  const known = new Set(ids);
  return all.filter((s) => known.has(s.section.id));
}
