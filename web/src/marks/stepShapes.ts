import type { StepKind } from '../api/client';

/** One colour of a mark: lines of a width, or surfaces, each from a point of the 12 x 12 field on. */
export interface Layer {
  colour: string;
  width?: number;
  parts: readonly (readonly [x: number, y: number, way: string])[];
}

const disc = (r: number) => `a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0z`;

/** The figures of the steps, by kind. */
const shapes: Record<StepKind, Layer[]> = {
  SAME: [{ colour: 'var(--ink-3)', parts: [[4.9, 6, disc(1.1)]] }],
  ADD: [
    {
      colour: 'var(--do)',
      width: 2.2,
      parts: [
        [6, 2, 'v8'],
        [2, 6, 'h8'],
      ],
    },
  ],
  UPDATE: [{ colour: 'var(--do)', parts: [[6, 1.8, 'l4.6 7.8h-9.2z']] }],
  KEEP: [{ colour: 'var(--own)', width: 1.5, parts: [[6, 1.2, 'l4.8 4.8-4.8 4.8-4.8-4.8z']] }],
  CLASH: [
    {
      colour: 'var(--mind-mark)',
      parts: [
        [0.8, 2, 'v8l4.6-4z'],
        [11.2, 2, 'v8l-4.6-4z'],
      ],
    },
  ],
  TWIN: [
    {
      colour: 'var(--mind-mark)',
      width: 1.4,
      parts: [
        [1.1, 6, disc(3.3)],
        [4.5, 6, disc(3.3)],
      ],
    },
  ],
  RETIRE: [{ colour: 'var(--harm)', width: 2.2, parts: [[2, 6, 'h8']] }],
  BLOCKED: [
    { colour: 'var(--harm)', parts: [[2, 2, 'h8v8h-8z']] },
    { colour: 'var(--raise)', width: 1.6, parts: [[3.6, 6, 'h4.8']] },
  ],
};

export function stepShape(kind: StepKind): Layer[] {
  return shapes[kind];
}

/** The path of a layer, moved. */
export function path(layer: Layer, x = 0, y = 0): string {
  return layer.parts.map(([px, py, way]) => `M${px + x} ${py + y}${way}`).join('');
}
