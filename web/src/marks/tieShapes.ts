import type { Paint } from './standingShapes';

/** Two ends of a line and a knot: apart, dotted, crossed, open, filled. */
export type TieKind = 'none' | 'waits' | 'wrong' | 'open' | 'works';

interface Part {
  paint: Paint;
  /** Where it begins in a field of 16 by 16, and how it goes on from there. */
  from: readonly [number, number];
  on: string;
}

const line = (stroke: string, width: number, dash?: string): Paint => ({
  fill: 'none',
  stroke,
  width,
  dash,
});
const ring = (r: number) => `a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`;

const parts: Record<TieKind, Part[]> = {
  none: [
    { paint: line('var(--mind-mark)', 2.2), from: [1, 8], on: 'h3.6m6.8 0h3.6' },
    { paint: line('var(--mind-mark)', 1.6), from: [4.6, 5.6], on: 'v4.8m6.8 -4.8v4.8' },
  ],
  waits: [
    { paint: line('var(--ink-2)', 1.8), from: [1, 8], on: 'h3.2m7.6 0h3.2' },
    { paint: line('var(--ink-2)', 1.3, '1.6 1.5'), from: [4.8, 8], on: ring(3.2) },
  ],
  wrong: [
    { paint: line('var(--harm)', 1.7), from: [0.8, 8], on: 'h14.4' },
    { paint: line('var(--harm)', 1.8), from: [5, 5], on: 'l6 6m0 -6l-6 6' },
  ],
  open: [
    { paint: line('var(--do)', 1.7), from: [0.8, 8], on: 'h3.6m7.2 0h3.6' },
    { paint: line('var(--do)', 1.6), from: [4.7, 8], on: ring(3.3) },
  ],
  works: [
    { paint: line('var(--calm)', 1.7), from: [0.8, 8], on: 'h14.4' },
    { paint: { fill: 'var(--calm)', stroke: 'none', width: 0 }, from: [4.7, 8], on: ring(3.3) },
  ],
};

/** Many marks of one kind as few paths, each at its place in units of the field. */
export function tiePaths(
  kind: TieKind,
  count: number,
  at: (n: number) => { x: number; y: number },
): { paint: Paint; d: string }[] {
  return parts[kind].map(({ paint, from, on }) => {
    let d = '';
    for (let n = 0; n < count; n++) {
      const { x, y } = at(n);
      d += `M${+(x + from[0]).toFixed(2)} ${+(y + from[1]).toFixed(2)}${on}`;
    }
    return { paint, d };
  });
}
