package org.zephyrmist.core.handover;

import java.time.LocalDate;
import java.util.Optional;

/**
 * When a hand-over is due: on its own day, else on the day before the term begins.
 *
 * @param own day that somebody set
 * @param firstDay of the term; none if the section is in none
 */
public record Due(Optional<LocalDate> own, Optional<LocalDate> firstDay) {
  /** None where nothing says one. */
  public Optional<LocalDate> day() {
    return own.or(() -> firstDay.map(d -> d.minusDays(1)));
  }

  /** Whether the day has passed. */
  public boolean overdue(LocalDate today) {
    return day().filter(today::isAfter).isPresent();
  }
}
