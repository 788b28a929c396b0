package org.zephyrmist.bench.history;

import java.util.List;
import java.util.Map;

/** One history: steps that chance chooses, each of which may be left out. */
interface History {
  /**
   * Plays steps by their seeds.
   *
   * @param counts of what was done, by kind
   * @throws Oracle.Broken if something does not hold
   */
  void play(List<Long> seeds, Map<String, Integer> counts) throws Exception;

  /** What was done, a line for each step. */
  List<String> log();
}
