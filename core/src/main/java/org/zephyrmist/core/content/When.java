package org.zephyrmist.core.content;

import java.time.LocalTime;
import java.util.Optional;

/**
 * A day by a pattern, and a time of that day on the section's clocks.
 *
 * @param at none only for a meeting: when it begins
 * @param off what becomes of it on a day off, where that is not what the master says for all
 */
public record When(DatePattern pattern, Optional<LocalTime> at, Optional<OffRule> off) {
  public When {
    if (at.isEmpty() && !(pattern instanceof DatePattern.Meeting)) {
      throw new IllegalArgumentException("Only a meeting tells by itself when on its day");
    }
    at = at.map(t -> t.withSecond(0).withNano(0));
  }

  public When(DatePattern pattern, LocalTime at) {
    this(pattern, Optional.of(at), Optional.empty());
  }

  /** The same on another day. */
  public When on(DatePattern other) {
    return new When(other, at, off);
  }
}
