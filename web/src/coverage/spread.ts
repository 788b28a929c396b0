import { field } from '../marks/standingShapes';
import type { Master, Stand } from './model';

/** The columns: what is never received first, those in step last. */
export const columns = ['never', '3 or more', '2 behind', '1 behind', 'in step'] as const;

/** The sections of one master over the versions they hold, by column. */
export interface Band {
  master: Master;
  slots: Stand[][];
}

/** A mark: the nth of a column of a band. */
export interface Spot {
  band: number;
  slot: number;
  n: number;
}

export function bands(stands: readonly Stand[], masters: readonly Master[]): Band[] {
  const by = new Map<Master, Stand[][]>();
  for (const m of masters) if (m.versions.length) by.set(m, [[], [], [], [], []]);
  for (const s of stands) by.get(s.master)?.[s.never ? 0 : Math.max(1, 4 - s.behind)].push(s);
  return [...by].map(([master, slots]) => ({ master, slots }));
}

/** Marks of a column stand in lines that are broken at its width. */
export class Lines {
  readonly across: number;
  readonly down: number;
  /** Of one mark, in pixels. */
  readonly width: number;
  readonly height: number;

  constructor(
    readonly count: number,
    size: number,
    room: number,
  ) {
    this.width = (size * field.width) / field.height;
    this.height = size + 1;
    this.across = Math.max(1, Math.floor(room / this.width));
    this.down = Math.ceil(count / this.across);
  }

  at(n: number): { x: number; y: number } {
    return {
      x: (n % this.across) * this.width,
      y: Math.floor(n / this.across) * this.height,
    };
  }

  /** The mark at a point, or none. */
  under(x: number, y: number): number | undefined {
    const column = Math.floor(x / this.width);
    const n = Math.floor(y / this.height) * this.across + column;
    return x >= 0 && y >= 0 && column < this.across && n < this.count ? n : undefined;
  }

  /** The marks that a rectangle touches. */
  within(left: number, top: number, right: number, bottom: number): number[] {
    const found: number[] = [];
    const firstRow = Math.max(0, Math.floor(top / this.height));
    const lastRow = Math.min(this.down - 1, Math.floor(bottom / this.height));
    const first = Math.max(0, Math.floor(left / this.width));
    const last = Math.min(this.across - 1, Math.floor(right / this.width));
    for (let row = firstRow; row <= lastRow; row++)
      for (let column = first; column <= last; column++) {
        const n = row * this.across + column;
        if (n < this.count) found.push(n);
      }
    return found;
  }
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

/** The next mark to the right (1) or left (-1), over the ends of columns and bands. */
export function beside(all: readonly Band[], from: Spot, way: 1 | -1): Spot | undefined {
  const n = from.n + way;
  if (n >= 0 && n < (all[from.band]?.slots[from.slot]?.length ?? 0)) return { ...from, n };
  for (let i = from.band * columns.length + from.slot + way; ; i += way) {
    const band = Math.floor(i / columns.length);
    if (i < 0 || band >= all.length) return undefined;
    const slot = i % columns.length;
    const count = all[band].slots[slot].length;
    if (count) return { band, slot, n: way > 0 ? 0 : count - 1 };
  }
}
