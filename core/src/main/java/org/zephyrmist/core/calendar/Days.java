package org.zephyrmist.core.calendar;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;

/** Days from a first to a last one, with both of them; at most two years. */
public record Days(LocalDate first, LocalDate last) {
  private static final long LONGEST = 731;

  /**
   * @throws CalendarException if the last is before the first, or too far away
   */
  public Days {
    if (last.isBefore(first)) {
      throw new CalendarException(
          "The last day, " + last + ", is before the first, " + first + ".",
          "Change one of the two.");
    }
    if (ChronoUnit.DAYS.between(first, last) > LONGEST) {
      throw new CalendarException(
          "From " + first + " to " + last + " are more than two years.",
          "Look whether a year is mistyped.");
    }
  }

  public boolean contains(LocalDate day) {
    return !day.isBefore(first) && !day.isAfter(last);
  }
}
