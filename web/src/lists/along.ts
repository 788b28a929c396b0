/**
 * Where a key leads in a list of so many rows, a page of them in sight at a time; nothing if the
 * key does not move.
 */
export function along(key: string, at: number, rows: number, page: number): number | undefined {
  const to = {
    ArrowDown: at + 1,
    ArrowUp: at - 1,
    PageDown: at + page,
    PageUp: at - page,
    Home: 0,
    End: rows - 1,
  }[key];
  return to === undefined ? undefined : Math.max(0, Math.min(rows - 1, to));
}
