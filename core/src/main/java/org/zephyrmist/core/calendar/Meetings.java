package org.zephyrmist.core.calendar;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * When a section meets.
 *
 * @param weekly each week again; none: it never meets, as a section online does
 * @param cancelled days on which it does not
 */
public record Meetings(List<Weekly> weekly, Set<LocalDate> cancelled) {
  public static final Meetings NONE = new Meetings(List.of(), Set.of());

  public Meetings {
    weekly = List.copyOf(weekly);
    cancelled = Set.copyOf(cancelled);
  }

  /** A weekday, and from when to when. */
  public record Weekly(DayOfWeek day, LocalTime begins, LocalTime ends) {
    /**
     * @throws CalendarException if it ends before it begins
     */
    public Weekly {
      if (!ends.isAfter(begins)) {
        throw new CalendarException(
            "A meeting ends at " + ends + ", before it has begun.", "Change one of the two times.");
      }
    }
  }

  /** When it begins on a day of the week. */
  public Optional<LocalTime> begins(DayOfWeek day) {
    return weekly.stream()
        .filter(w -> w.day() == day)
        .map(Weekly::begins)
        .min(LocalTime::compareTo);
  }
}
