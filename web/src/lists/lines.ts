/** Columns of every picture of marks. */
export const COLUMNS = 5;

/** Marks of a row of a picture, by column. */
export interface Marks {
  slots: readonly (readonly unknown[])[];
}

/** A mark: the nth of a column of a band. */
export interface Spot {
  band: number;
  slot: number;
  n: number;
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
    /** Width of a mark by its height. */
    ratio = 1,
  ) {
    this.width = size * ratio;
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

/** The next mark to the right (1) or left (-1), over the ends of columns and bands. */
export function beside(all: readonly Marks[], from: Spot, way: 1 | -1): Spot | undefined {
  const n = from.n + way;
  if (n >= 0 && n < (all[from.band]?.slots[from.slot]?.length ?? 0)) return { ...from, n };
  for (let i = from.band * COLUMNS + from.slot + way; ; i += way) {
    const band = Math.floor(i / COLUMNS);
    if (i < 0 || band >= all.length) return undefined;
    const slot = i % COLUMNS;
    const count = all[band].slots[slot].length;
    if (count) return { band, slot, n: way > 0 ? 0 : count - 1 };
  }
}
