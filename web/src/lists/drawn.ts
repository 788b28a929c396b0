import { COLUMNS, type Lines, type Marks, type Spot } from './lines';

export interface Rectangle {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** Where the columns of a picture stand on the screen. */
export class Drawn {
  private readonly slots: { lines: Lines; box: HTMLElement }[][] = [];

  set(band: number, slot: number, lines: Lines, box: HTMLElement) {
    (this.slots[band] ??= [])[slot] = { lines, box };
  }

  reveal(spot: Spot) {
    this.slots[spot.band][spot.slot].box.scrollIntoView?.({ block: 'nearest' });
  }

  /** The mark at a point of the screen. */
  under(bands: number, x: number, y: number): Spot | undefined {
    for (let band = 0; band < bands; band++)
      for (let slot = 0; slot < COLUMNS; slot++) {
        const { lines, box } = this.slots[band][slot];
        const r = box.getBoundingClientRect();
        const n = x < r.right && y < r.bottom ? lines.under(x - r.left, y - r.top) : undefined;
        if (n !== undefined) return { band, slot, n };
      }
    return undefined;
  }

  /** The marks that a rectangle of the screen touches. */
  within(bands: number, b: Rectangle): Spot[] {
    const found: Spot[] = [];
    for (let band = 0; band < bands; band++)
      for (let slot = 0; slot < COLUMNS; slot++) {
        const { lines, box } = this.slots[band][slot];
        const r = box.getBoundingClientRect();
        const [x, y] = [b.x - r.left, b.y - r.top];
        for (const n of lines.within(x, y, x + b.w, y + b.h)) found.push({ band, slot, n });
      }
    return found;
  }

  /** The mark in the next line below (1) or above (-1) that stands nearest. */
  near(bands: readonly Marks[], from: Spot, way: 1 | -1): Spot | undefined {
    const { lines, box } = this.slots[from.band][from.slot];
    const row = Math.floor(from.n / lines.across) + way;
    if (row >= 0 && row < lines.down)
      return { ...from, n: Math.min(lines.count - 1, from.n + way * lines.across) };
    const x = box.getBoundingClientRect().left + lines.at(from.n).x;
    for (let band = from.band + way; bands[band]; band += way) {
      const best = this.nearest(bands, band, way, x);
      if (best) return best;
    }
    return undefined;
  }

  private nearest(bands: readonly Marks[], band: number, way: 1 | -1, x: number): Spot | undefined {
    let best: Spot | undefined;
    let least = Infinity;
    bands[band].slots.forEach((marks, slot) => {
      const { lines, box } = this.slots[band][slot];
      const first = way > 0 ? 0 : (lines.down - 1) * lines.across;
      const left = box.getBoundingClientRect().left;
      for (let n = first; n < Math.min(first + lines.across, marks.length); n++) {
        const far = Math.abs(left + lines.at(n).x - x);
        if (far < least) [least, best] = [far, { band, slot, n }];
      }
    });
    return best;
  }
}
