package org.zephyrmist.core.shell;

import java.time.LocalDate;
import java.util.Optional;

/** The days on which students may enter a shell; none: no bound on that side. */
public record OpenDays(Optional<LocalDate> opens, Optional<LocalDate> closes) {
  /**
   * @throws IllegalArgumentException if it closes before it opens
   */
  public OpenDays {
    if (opens.isPresent() && closes.filter(opens.get()::isAfter).isPresent()) {
      throw new IllegalArgumentException("A shell closes after it has opened.");
    }
  }

  /** Whether students may enter on a day. */
  public boolean on(LocalDate day) {
    return opens.filter(day::isBefore).isEmpty() && closes.filter(day::isAfter).isEmpty();
  }
}
