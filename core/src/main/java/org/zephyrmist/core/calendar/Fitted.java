package org.zephyrmist.core.calendar;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.zephyrmist.core.content.DatePattern;
import org.zephyrmist.core.content.ModuleDates;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.TimingPattern;
import org.zephyrmist.core.content.When;

/**
 * Patterns of a whole term for a part of it of another length. Weeks, teaching days and finals are
 * laid by the share of teaching days: day k of n becomes day 1 + round((k − 1) · (m − 1) / (n − 1))
 * of m. What is said from the first or last day on, beside another item, by meetings or as a real
 * day stays as it is said.
 */
public final class Fitted {
  private static final int NEAR = 6;
  private final CountedDays whole;
  private final CountedDays part;
  private final Fit fit;

  public Fitted(CountedDays whole, CountedDays part, Fit fit) {
    this.whole = whole;
    this.part = part;
    this.fit = fit;
  }

  /** The items with patterns for the part; the same if nothing is to be fitted. */
  public List<Undated> of(List<Undated> items) {
    if (fit == Fit.AS_SAID) {
      return items;
    }
    List<Undated> laid =
        items.stream()
            .map(
                i ->
                    i.timing().pattern().isEmpty()
                        ? i
                        : new Undated(
                            i.key(),
                            i.kind(),
                            i.parent(),
                            i.timing().with(of(i.timing().patterns()))))
            .toList();
    return new Staggered(whole, part, this).of(items, laid);
  }

  private TimingPattern of(TimingPattern p) {
    TimingPattern all = p;
    for (Point point : Point.values()) {
      all = all.with(point, p.at(point).map(this::laid));
    }
    return all.within(p.within().map(this::of));
  }

  /** What opens week after week is staggered, see {@link Staggered}. */
  private ModuleDates of(ModuleDates m) {
    return new ModuleDates(laid(m.start()), m.everyWeeks(), m.oneAfterOther());
  }

  /** A pattern of the whole term in the part. */
  When laid(When w) {
    boolean laid =
        w.pattern() instanceof DatePattern.Week
            || w.pattern() instanceof DatePattern.TeachingDay
            || w.pattern() instanceof DatePattern.Finals;
    if (!laid) {
      return w;
    }
    LocalDate day = Laid.of(w.pattern(), whole, Optional.empty()).day().orElseThrow();
    int n = share(nth(day));
    return w.on(fit == Fit.SHARE ? new DatePattern.TeachingDay(n) : sameWeekday(day, n));
  }

  /** Which teaching day of the whole a day counts as: the last that is not after it. */
  private int nth(LocalDate day) {
    LocalDate taught = whole.until(day).orElseGet(whole::firstDay);
    return whole.teachingDay(taught).orElseThrow();
  }

  /** Which teaching day of the part the {@code k}th of the whole becomes. */
  public int share(int k) {
    int n = whole.teachingDays().size();
    int m = part.teachingDays().size();
    return n == 1 ? 1 : 1 + (int) Math.round((k - 1.0) * (m - 1) / (n - 1));
  }

  private DatePattern sameWeekday(LocalDate day, int n) {
    LocalDate near = part.teachingDays().get(n - 1);
    for (int d = 0; d <= NEAR; d++) {
      for (LocalDate at : List.of(near.minusDays(d), near.plusDays(d))) {
        boolean fits =
            at.getDayOfWeek() == day.getDayOfWeek()
                && part.calendar().teaching().contains(at)
                && part.calendar().off(at).isEmpty()
                && part.week(at).isPresent();
        if (fits) {
          return new DatePattern.Week(part.week(at).orElseThrow(), at.getDayOfWeek());
        }
      }
    }
    return new DatePattern.TeachingDay(n);
  }
}
