package org.zephyrmist.core.content;

import java.util.Optional;

/**
 * When an item opens, is due and closes, relative to a term.
 *
 * @param within for what stands in it, of a module
 */
public record TimingPattern(
    Optional<When> opens, Optional<When> due, Optional<When> closes, Optional<ModuleDates> within) {
  public static final TimingPattern NONE =
      new TimingPattern(Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty());

  /** The pattern of a point. */
  public Optional<When> at(Point p) {
    return switch (p) {
      case OPENS -> opens;
      case DUE -> due;
      case CLOSES -> closes;
    };
  }

  /** The same but for one point. */
  public TimingPattern with(Point p, Optional<When> to) {
    return switch (p) {
      case OPENS -> new TimingPattern(to, due, closes, within);
      case DUE -> new TimingPattern(opens, to, closes, within);
      case CLOSES -> new TimingPattern(opens, due, to, within);
    };
  }

  /** The same but for what stands in it. */
  public TimingPattern within(Optional<ModuleDates> to) {
    return new TimingPattern(opens, due, closes, to);
  }
}
