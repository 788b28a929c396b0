package org.zephyrmist.core.term;

import java.util.Optional;

/** What becomes in the next term of what a section had made of a text. */
public enum Onward {
  /** It goes, as the section has it, to the section that follows where the same person teaches. */
  AGAIN,
  /** Only what was put into blanks goes there; all else is as the master says. */
  BLANKS,
  /** It goes into the master, by hand; sections get it with a version. */
  TO_MASTER,
  /** The master's text comes. */
  DROPPED;

  /** Whether something is written into sections for it. */
  public boolean carries() {
    return this == AGAIN || this == BLANKS;
  }

  /**
   * What is proposed before somebody has said anything; none: the master's text comes until
   * somebody says otherwise.
   *
   * @param starter whether the text is the section's own by its rule
   * @param sections that made it their own
   * @param filledOnly of these, how many did nothing but fill its blanks
   */
  public static Optional<Onward> proposed(boolean starter, int sections, int filledOnly) {
    if (filledOnly == sections) {
      return Optional.of(BLANKS);
    }
    return starter ? Optional.of(AGAIN) : Optional.empty();
  }
}
