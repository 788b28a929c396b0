/** How a section stands towards a master, as far as a mark shows it. */
export interface Look {
  /** How much of the master is there, from 0 to 1. */
  share?: number;
  /** Versions behind. */
  behind?: number;
  changed?: boolean;
  never?: boolean;
  failed?: boolean;
}

/** One colour of a mark. */
export interface Paint {
  fill: string;
  stroke: string;
  width: number;
  dash?: string;
  /** Lines without length are drawn as discs of their width. */
  round?: boolean;
}

/** The field that a mark is drawn in. */
export const field = { width: 20, height: 18 } as const;
const r = 4.2;
const cx = 7;
const cy = 11;

const line = (stroke: string, width: number): Paint => ({ fill: 'none', stroke, width });
const inks = ['var(--calm)', 'var(--mind-mark)', 'var(--harm)'] as const;
/** Each paint once, in the order in which they lie over each other. */
const ring: Paint = { ...line('var(--ink-3)', 1.2), dash: '1.6 1.5' };
/** A full disc is a point, round and wide: what is drawn most is written shortest. */
const discs = inks.map((ink): Paint => ({ ...line(ink, 2 * r + 1.4), round: true }));
const rings = inks.map((ink) => line(ink, 1.4));
const pies = inks.map((ink): Paint => ({ fill: ink, stroke: 'none', width: 0 }));
const barbs = inks.map((ink) => line(ink, 1.35));
const stroke = line('var(--harm)', 1.6);
const diamond: Paint = { fill: 'var(--own)', stroke: 'var(--paper)', width: 1 };
export const paints: readonly Paint[] = [
  ring,
  ...discs,
  ...rings,
  ...pies,
  ...barbs,
  stroke,
  diamond,
];

/**
 * The parts of a mark. Disc: how much of the master is there. Barbs: versions behind, three at the
 * most. Diamond: changed in the section. Stroke: a person is needed.
 *
 * @param x where its field begins
 */
export function standingParts(look: Look, x = 0, y = 0): { paint: Paint; d: string }[] {
  const { share = 1, behind = 0, changed = false, never = false, failed = false } = look;
  const at = (dx: number, dy: number) => `M${hundredths(x + dx)} ${hundredths(y + dy)}`;
  const circle = () => `${at(cx - r, cy)}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0z`;
  const ink = failed ? 2 : behind ? 1 : 0;
  const parts: { paint: Paint; d: string }[] = [];
  if (never) parts.push({ paint: ring, d: circle() });
  else {
    if (share >= 1) parts.push({ paint: discs[ink], d: at(cx, cy) + 'h.01' });
    else parts.push({ paint: rings[ink], d: circle() });
    if (share > 0 && share < 1) parts.push({ paint: pies[ink], d: pie(share, x, y) });
    if (behind) {
      let d = at(cx, cy - r) + 'v-6.2';
      for (let i = 0; i < Math.min(behind, 3); i++) d += at(cx, 1.3 + i * 2.5) + 'h4.6';
      parts.push({ paint: barbs[ink], d });
    }
  }
  if (failed) parts.push({ paint: stroke, d: at(cx - 5.5, cy + 5.5) + 'l11-11' });
  if (changed) parts.push({ paint: diamond, d: at(cx + 5.2, cy + 0.4) + 'l3 3-3 3-3-3z' });
  return parts;
}

const hundredths = (n: number) => Math.round(n * 100) / 100;

function pie(share: number, x: number, y: number): string {
  const a = share * 2 * Math.PI;
  const to = `${x + cx + r * Math.sin(a)} ${y + cy - r * Math.cos(a)}`;
  return `M${x + cx} ${y + cy}v${-r}A${r} ${r} 0 ${share > 0.5 ? 1 : 0} 1 ${to}Z`;
}

/** Many marks as one path for each paint: thousands are drawn as quickly as a few. */
export function standingPaths(
  looks: readonly Look[],
  place: (n: number) => { x: number; y: number },
): { paint: Paint; d: string }[] {
  const by = new Map<Paint, string[]>();
  looks.forEach((look, n) => {
    const { x, y } = place(n);
    for (const { paint, d } of standingParts(look, x, y)) {
      const of = by.get(paint);
      if (of) of.push(d);
      else by.set(paint, [d]);
    }
  });
  return paints.flatMap((paint) => {
    const d = by.get(paint);
    return d ? [{ paint, d: d.join('') }] : [];
  });
}
