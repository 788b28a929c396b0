package org.zephyrmist.core.edition;

import java.util.HashSet;
import java.util.Set;

/** How alike the places of two items are, under a pairing of what stands around them. */
final class Neighbours {
  private final Side older;
  private final Side newer;
  private final int[] toNewer;

  Neighbours(Side older, Side newer, int[] toNewer) {
    this.older = older;
    this.newer = newer;
    this.toNewer = toNewer;
  }

  /** Half for the module they stand in, a quarter each for the one before and the one after. */
  double of(int o, int n) {
    return 0.5 * met(older.parent(o), newer.parent(n))
        + 0.25 * met(older.before(o), newer.before(n))
        + 0.25 * met(older.after(o), newer.after(n));
  }

  /** Both stand at an edge, or both beside items that are a pair. */
  private double met(int o, int n) {
    return o < 0 && n < 0 || o >= 0 && n >= 0 && toNewer[o] == n ? 1 : 0;
  }

  /** Of two modules, how much of what they hold is paired with each other. */
  double children(int o, int n) {
    Set<Integer> held = new HashSet<>(newer.below(n));
    long shared = older.below(o).stream().filter(c -> held.contains(toNewer[c])).count();
    int all = older.below(o).size() + held.size();
    return all == 0 ? 0 : 2.0 * shared / all;
  }
}
