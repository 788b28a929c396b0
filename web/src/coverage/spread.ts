import { beside, type Spot } from '../lists/lines';
import type { Master, Stand } from './model';

/** The columns: what is never received first, those in step last. */
export const columns = ['never', '3 or more', '2 behind', '1 behind', 'in step'] as const;

/** The sections of one master over the versions they hold, by column. */
export interface Band {
  master: Master;
  slots: Stand[][];
}

export function bands(stands: readonly Stand[], masters: readonly Master[]): Band[] {
  const by = new Map<Master, Stand[][]>();
  for (const m of masters) if (m.versions.length) by.set(m, [[], [], [], [], []]);
  for (const s of stands) by.get(s.master)?.[s.never ? 0 : Math.max(1, 4 - s.behind)].push(s);
  return [...by].map(([master, slots]) => ({ master, slots }));
}

/** The mark of a section in a band, or else the first of all. */
export function spotOf(all: readonly Band[], master?: Master, section?: string): Spot | undefined {
  const band = all.findIndex((b) => b.master === master);
  const slots = all[band]?.slots ?? [];
  for (let slot = 0; slot < slots.length; slot++) {
    const n = slots[slot].findIndex((s) => s.section.id === section);
    if (n >= 0) return { band, slot, n };
  }
  return beside(all, { band: 0, slot: -1, n: 0 }, 1);
}

export function standAt(all: readonly Band[], at?: Spot): Stand | undefined {
  return at && all[at.band]?.slots[at.slot]?.[at.n];
}
