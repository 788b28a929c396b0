package org.zephyrmist.bench.history;

/** What is played: steps that chance says, each of which has to leave everything as it must be. */
interface History {
  Turn turn();

  /**
   * One step; gives what was done, in a word or two.
   *
   * @throws Oracle.Broken where something does not hold after it
   */
  String step() throws Exception;

  /** What must hold at the end, after all steps. */
  default void ended() {}
}
