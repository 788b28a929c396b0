/** Parts of the width that the columns of the spread take: never … in step. */
const shares = [0.9, 0.9, 1.1, 1.8, 4];
const all = shares.reduce((a, b) => a + b, 0);
const sizes = [24, 22, 20, 18, 16, 14, 12, 10, 9];
/** Height of a band beside its marks: the line of numbers and the edges. */
const edges = 27;
const least = 52;

function rows(n: number, column: number, size: number, width: number): number {
  const room = Math.max(40, (width * shares[column]) / all - 14);
  return Math.ceil(n / Math.floor(room / (size * 1.12)));
}

/** Marks of one column as large as lets it keep to four or five rows. */
function sizeFor(n: number, column: number, most: number, width: number): number {
  return (
    sizes.find((s) => s <= most && rows(n, column, s, width) * s <= Math.max(84, most * 4.5)) ?? 9
  );
}

/**
 * The size of the marks of every band and column: as large as lets all bands be seen at once, but
 * no smaller than that for room's sake alone.
 *
 * @param counts marks of each band in each column
 * @param width of the columns together
 * @param height of all bands together
 */
export function markSizes(counts: number[][], width: number, height: number): number[][] {
  let tried: number[][] = [];
  for (const most of [24, 22, 20, 18, 16]) {
    tried = counts.map((slots) => slots.map((n, i) => sizeFor(n, i, most, width)));
    const total = counts
      .map((slots, band) =>
        Math.max(
          least,
          ...slots.map((n, i) => rows(n, i, tried[band][i], width) * (tried[band][i] + 1) + edges),
        ),
      )
      .reduce((a, b) => a + b, 0);
    if (total <= height) break;
  }
  return tried;
}
