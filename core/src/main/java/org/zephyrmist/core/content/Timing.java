package org.zephyrmist.core.content;

import java.time.LocalDateTime;
import java.time.format.DateTimeParseException;
import java.util.Optional;

/** When an item opens, is due and closes, in the local time of the section; or none. */
public record Timing(
    Optional<LocalDateTime> opens, Optional<LocalDateTime> due, Optional<LocalDateTime> closes) {
  public static final Timing NONE =
      new Timing(Optional.empty(), Optional.empty(), Optional.empty());

  private static final int EARLIEST = 1900;
  private static final int LATEST = 2200;

  public Timing {
    opens.ifPresent(Timing::check);
    due.ifPresent(Timing::check);
    closes.ifPresent(Timing::check);
  }

  private static void check(LocalDateTime at) {
    if (!inRange(at)) {
      throw new IllegalArgumentException("A day out of range: " + at);
    }
  }

  private static boolean inRange(LocalDateTime at) {
    return at.getYear() >= EARLIEST && at.getYear() <= LATEST;
  }

  /** The same but for its due time. */
  public Timing withDue(Optional<LocalDateTime> to) {
    return new Timing(opens, to, closes);
  }

  /**
   * A local date and time (ISO 8601, without zone), from the year 1900 to 2200; none for anything
   * else.
   */
  public static Optional<LocalDateTime> at(String text) {
    try {
      return Optional.of(LocalDateTime.parse(text.strip())).filter(Timing::inRange);
    } catch (DateTimeParseException e) {
      return Optional.empty();
    }
  }
}
