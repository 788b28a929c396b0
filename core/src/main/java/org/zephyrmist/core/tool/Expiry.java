package org.zephyrmist.core.tool;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Optional;

/** When people are told that credentials end: 30 days before, 7, and 1. */
public final class Expiry {
  private static final int[] DAYS = {1, 7, 30};

  /** The longest of them. */
  public static final int LONGEST = 30;

  private Expiry() {}

  /** Of which of these days it is time to tell; none while there is more time, or none left. */
  public static Optional<Integer> due(LocalDate ends, LocalDate today) {
    long left = ChronoUnit.DAYS.between(today, ends);
    if (left < 0) {
      return Optional.empty();
    }
    for (int d : DAYS) {
      if (left <= d) {
        return Optional.of(d);
      }
    }
    return Optional.empty();
  }
}
