package org.zephyrmist.core.content;

/** One side of an item that is fingerprinted, compared and merged on its own. */
public enum Aspect {
  /** Title, text, questions, file. */
  WORDING,
  /** Points, category, rubric, attempts, weight. */
  GRADING,
  /** Open, due and close. */
  TIMING,
  /** Module and order within it. */
  PLACE,
  /** Shown or hidden, and to whom. */
  VISIBILITY,
  /** Where a link leads, and with which parameters. */
  LAUNCH
}
