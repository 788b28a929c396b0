package org.zephyrmist.core.history;

import java.util.Random;

/**
 * Something that somebody does. What exactly follows from its seed and from how things are, so that
 * a history can be played again without some of its steps.
 */
record Play(Who who, long seed) {
  /** Who does it, and about what. */
  enum Who {
    INSTRUCTOR,
    STUDENT,
    DESIGNER,
    FREEZE,
    DELIVER,
    TAKE_BACK
  }

  private static final Who[] OFTEN = {
    Who.INSTRUCTOR,
    Who.INSTRUCTOR,
    Who.INSTRUCTOR,
    Who.STUDENT,
    Who.DESIGNER,
    Who.DESIGNER,
    Who.FREEZE,
    Who.DELIVER,
    Who.DELIVER,
    Who.TAKE_BACK
  };

  static Play any(Random random) {
    return new Play(OFTEN[random.nextInt(OFTEN.length)], random.nextLong());
  }
}
