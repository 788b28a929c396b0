package org.zephyrmist.core.content;

import java.time.LocalDateTime;
import java.time.format.DateTimeParseException;
import java.util.Optional;

/**
 * When an item opens, is due and closes, in the local time of the section; or none.
 *
 * @param pattern how a section's own dates follow from its calendar; what it says of a point, no
 *     real date says. In a shell there is none
 */
public record Timing(
    Optional<LocalDateTime> opens,
    Optional<LocalDateTime> due,
    Optional<LocalDateTime> closes,
    Optional<TimingPattern> pattern) {
  public static final Timing NONE =
      new Timing(Optional.empty(), Optional.empty(), Optional.empty());

  private static final int EARLIEST = 1900;
  private static final int LATEST = 2200;

  public Timing {
    opens.ifPresent(Timing::check);
    due.ifPresent(Timing::check);
    closes.ifPresent(Timing::check);
    pattern = pattern.filter(p -> !p.equals(TimingPattern.NONE));
    TimingPattern p = pattern.orElse(TimingPattern.NONE);
    opens = opens.filter(x -> p.opens().isEmpty());
    due = due.filter(x -> p.due().isEmpty());
    closes = closes.filter(x -> p.closes().isEmpty());
  }

  /** Real dates alone. */
  public Timing(
      Optional<LocalDateTime> opens, Optional<LocalDateTime> due, Optional<LocalDateTime> closes) {
    this(opens, due, closes, Optional.empty());
  }

  private static void check(LocalDateTime at) {
    if (!inRange(at)) {
      throw new IllegalArgumentException("A day out of range: " + at);
    }
  }

  private static boolean inRange(LocalDateTime at) {
    return at.getYear() >= EARLIEST && at.getYear() <= LATEST;
  }

  /** The real date of a point. */
  public Optional<LocalDateTime> at(Point p) {
    return switch (p) {
      case OPENS -> opens;
      case DUE -> due;
      case CLOSES -> closes;
    };
  }

  /** The same but for a point, which is this from now on, whatever a pattern said. */
  public Timing with(Point p, Optional<LocalDateTime> to) {
    Optional<TimingPattern> others = pattern.map(x -> x.with(p, Optional.empty()));
    return new Timing(
        p == Point.OPENS ? to : opens,
        p == Point.DUE ? to : due,
        p == Point.CLOSES ? to : closes,
        others);
  }

  /** The same by other patterns; real dates stay where these say nothing. */
  public Timing with(TimingPattern to) {
    return new Timing(opens, due, closes, Optional.of(to));
  }

  /** What patterns say; nothing where there are none. */
  public TimingPattern patterns() {
    return pattern.orElse(TimingPattern.NONE);
  }

  /** Whether it has neither a date nor a pattern of a point. */
  public boolean undated() {
    for (Point p : Point.values()) {
      if (at(p).isPresent() || patterns().at(p).isPresent()) {
        return false;
      }
    }
    return true;
  }

  /** The same but for its due time. */
  public Timing withDue(Optional<LocalDateTime> to) {
    return with(Point.DUE, to);
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
