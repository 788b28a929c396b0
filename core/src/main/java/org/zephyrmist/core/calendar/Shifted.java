package org.zephyrmist.core.calendar;

import java.time.DayOfWeek;
import java.time.LocalDateTime;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.DatePattern;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.When;

/** Patterns moved by days, each in its own way of counting. */
public final class Shifted {
  private static final int WEEK = 7;

  private Shifted() {}

  /** What is to be moved cannot be moved so far. */
  public static final class NotPossible extends RuntimeException {
    private static final long serialVersionUID = 1;

    NotPossible(String why) {
      super(why);
    }
  }

  /**
   * The same so many days later, or earlier if negative. Weeks roll over; teaching days and
   * meetings are counted one for a day, and five or one for a week.
   *
   * @throws NotPossible if it would be before the first week, day or meeting, or too far
   */
  public static When by(When w, int days) {
    try {
      return w.on(by(w.pattern(), days));
    } catch (IllegalArgumentException e) {
      throw new NotPossible("“" + w.pattern().text() + "” cannot be moved by " + days + " days.");
    }
  }

  /**
   * All times of an item so many days later.
   *
   * @param together items that are moved as well: what follows one of them moves with it
   * @throws NotPossible as {@link #by}
   */
  public static Timing all(Timing t, int days, Set<ItemKey> together) {
    Timing to = t;
    for (Point p : Point.values()) {
      Optional<When> w = t.patterns().at(p);
      boolean follows =
          w.isPresent()
              && w.get().pattern() instanceof DatePattern.Beside b
              && together.contains(b.item());
      if (w.isPresent() && !follows) {
        to = to.with(to.patterns().with(p, w.map(x -> by(x, days))));
      } else if (w.isEmpty() && t.at(p).isPresent()) {
        to = to.with(p, t.at(p).map(at -> real(at, days)));
      }
    }
    return to;
  }

  private static LocalDateTime real(LocalDateTime at, int days) {
    LocalDateTime to = at.plusDays(days);
    return Timing.at(to.toString())
        .orElseThrow(() -> new NotPossible("“" + at + "” cannot be moved by " + days + " days."));
  }

  private static DatePattern by(DatePattern p, int days) {
    if (p instanceof DatePattern.Week w) {
      int at = w.week() * WEEK + w.day().getValue() - 1 + days;
      return new DatePattern.Week(
          Math.floorDiv(at, WEEK), DayOfWeek.of(Math.floorMod(at, WEEK) + 1));
    }
    if (p instanceof DatePattern.TeachingDay t) {
      return new DatePattern.TeachingDay(t.n() + counted(days, 5));
    }
    if (p instanceof DatePattern.Meeting m) {
      return new DatePattern.Meeting(m.n() + counted(days, 1));
    }
    if (p instanceof DatePattern.FirstDay f) {
      return new DatePattern.FirstDay(f.days() + days);
    }
    if (p instanceof DatePattern.LastDay l) {
      return new DatePattern.LastDay(l.days() + days);
    }
    if (p instanceof DatePattern.Beside b) {
      return new DatePattern.Beside(b.days() + days, b.item(), b.point());
    }
    if (p instanceof DatePattern.Fixed f) {
      return new DatePattern.Fixed(f.day().plusDays(days));
    }
    DatePattern.Finals f = (DatePattern.Finals) p;
    return new DatePattern.Finals(f.day().plus(days));
  }

  private static int counted(int days, int ofAWeek) {
    return days % WEEK == 0 ? days / WEEK * ofAWeek : days;
  }
}
