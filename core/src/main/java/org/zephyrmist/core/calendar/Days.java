package org.zephyrmist.core.calendar;

import java.time.LocalDate;

/** Days from a first to a last one, with both of them. */
public record Days(LocalDate first, LocalDate last) {
  /**
   * @throws CalendarException if the last is before the first
   */
  public Days {
    if (last.isBefore(first)) {
      throw new CalendarException(
          "The last day, " + last + ", is before the first, " + first + ".",
          "Change one of the two.");
    }
  }

  public boolean contains(LocalDate day) {
    return !day.isBefore(first) && !day.isAfter(last);
  }
}
