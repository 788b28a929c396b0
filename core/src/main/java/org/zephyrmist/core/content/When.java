package org.zephyrmist.core.content;

import java.time.LocalTime;
import java.time.format.DateTimeParseException;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

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

  private static final Pattern TIMED = Pattern.compile("(.*\\S)\\s+(\\d{1,2}:\\d{2})");

  /**
   * What a text says: a pattern, and behind it a time such as 23:59; none if it says none.
   *
   * @param point without a time, what opens does so with the day, all else is at its end, and a
   *     meeting when it begins
   */
  public static Optional<When> of(String text, Point point) {
    Matcher m = TIMED.matcher(text.strip());
    boolean timed = m.matches();
    Optional<LocalTime> at = timed ? time(m.group(2)) : Optional.empty();
    if (timed && at.isEmpty()) {
      return Optional.empty();
    }
    LocalTime usual = point == Point.OPENS ? LocalTime.MIDNIGHT : LocalTime.of(23, 59);
    return DatePattern.of(timed ? m.group(1) : text)
        .map(
            p ->
                new When(
                    p,
                    p instanceof DatePattern.Meeting ? at : at.or(() -> Optional.of(usual)),
                    Optional.empty()));
  }

  private static Optional<LocalTime> time(String text) {
    try {
      return Optional.of(LocalTime.parse(text.length() < 5 ? "0" + text : text));
    } catch (DateTimeParseException none) {
      return Optional.empty();
    }
  }

  /** The text of it, as {@link #of} reads it. */
  public String text() {
    return pattern.text() + at.map(t -> " " + t).orElse("");
  }

  /** The same on another day. */
  public When on(DatePattern other) {
    return new When(other, at, off);
  }
}
