package org.zephyrmist.core.calendar;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.zephyrmist.core.content.DatePattern;
import org.zephyrmist.core.content.OffRule;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.TimingPattern;
import org.zephyrmist.core.content.When;

/**
 * Patterns of real dates, by the calendar in which they were real. In the same calendar they are
 * the same dates again; in another one whole weeks are kept, and weekdays.
 */
public final class OldDates {
  private final CountedDays old;
  private final By by;

  /** By what dates are said, where that is possible. */
  public enum By {
    WEEK,
    TEACHING_DAY,
    MEETING
  }

  public OldDates(CountedDays old, By by) {
    this.old = old;
    this.by = by;
  }

  /**
   * The same timing, its real dates as patterns. A date further from the term than a pattern can
   * say stays real.
   */
  public Timing patterns(Timing t) {
    TimingPattern all = t.patterns();
    for (Point p : Point.values()) {
      Optional<When> w = t.at(p).flatMap(this::pattern);
      if (w.isPresent()) {
        all = all.with(p, w);
      }
    }
    return t.with(all);
  }

  private Optional<When> pattern(LocalDateTime at) {
    LocalDate day = at.toLocalDate();
    if (!at.equals(at.truncatedTo(ChronoUnit.MINUTES))) {
      return Optional.empty();
    }
    for (DatePattern p : candidates(day)) {
      Laid laid = Laid.of(p, old, Optional.empty());
      if (laid.day().filter(day::equals).isPresent()) {
        Optional<OffRule> off = old.calendar().off(day).map(o -> OffRule.LEAVE);
        return Optional.of(new When(p, Optional.of(at.toLocalTime()), off));
      }
    }
    return Optional.empty();
  }

  private List<DatePattern> candidates(LocalDate day) {
    List<DatePattern> all = new ArrayList<>();
    if (by == By.MEETING) {
      old.meeting(day).map(DatePattern.Meeting::new).ifPresent(all::add);
    }
    if (by == By.TEACHING_DAY) {
      old.teachingDay(day).map(DatePattern.TeachingDay::new).ifPresent(all::add);
    }
    old.week(day).map(n -> new DatePattern.Week(n, day.getDayOfWeek())).ifPresent(all::add);
    all.add(new DatePattern.Finals(day.getDayOfWeek()));
    long first = ChronoUnit.DAYS.between(old.firstDay(), day);
    long last = ChronoUnit.DAYS.between(old.lastDay(), day);
    if (last > 0 && last <= DatePattern.MOST) {
      all.add(new DatePattern.LastDay((int) last));
    }
    if (Math.abs(first) <= DatePattern.MOST) {
      all.add(new DatePattern.FirstDay((int) first));
    }
    return all;
  }
}
