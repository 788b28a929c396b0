package org.zephyrmist.core.handover;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;

/**
 * When people are reminded of a hand-over without anybody asking for it: a week and a day before it
 * is due, then every week until it is done. Only of one that somebody has begun to follow up, by a
 * day of its own or a first reminder: nobody hears of a hand-over from a program first.
 */
public final class Reminders {
  private static final List<Integer> DAYS_BEFORE = List.of(7, 1);
  private static final int THEN_EVERY = 7;

  private Reminders() {}

  /**
   * @param last day on which its people were reminded
   */
  public static boolean due(Due due, Optional<LocalDate> last, LocalDate today) {
    boolean followed = due.own().isPresent() || last.isPresent();
    return followed && due.day().filter(d -> wanted(d, last, today)).isPresent();
  }

  private static boolean wanted(LocalDate day, Optional<LocalDate> last, LocalDate today) {
    if (today.isAfter(day)) {
      LocalDate since = last.filter(l -> l.isAfter(day)).orElse(day.minusDays(THEN_EVERY - 1L));
      return !today.isBefore(since.plusDays(THEN_EVERY));
    }
    return DAYS_BEFORE.stream()
        .map(day::minusDays)
        .anyMatch(from -> !today.isBefore(from) && last.filter(l -> !l.isBefore(from)).isEmpty());
  }
}
