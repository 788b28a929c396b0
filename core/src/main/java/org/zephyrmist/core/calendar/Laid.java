package org.zephyrmist.core.calendar;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.zephyrmist.core.content.DatePattern;

/**
 * The day that a pattern says in a calendar, before days off are looked at.
 *
 * @param day none if it says none here
 * @param remark what is to be told of it
 * @param said the day of the pattern's own, if it was another
 */
record Laid(Optional<LocalDate> day, Optional<Remark.Kind> remark, Optional<LocalDate> said) {
  private static Laid on(LocalDate day) {
    return new Laid(Optional.of(day), Optional.empty(), Optional.empty());
  }

  private static Laid instead(LocalDate day, Remark.Kind why, LocalDate said) {
    return new Laid(Optional.of(day), Optional.of(why), Optional.of(said));
  }

  static Laid none(Remark.Kind why) {
    return new Laid(Optional.empty(), Optional.of(why), Optional.empty());
  }

  /**
   * @param beside the day of the point it is relative to, of a pattern beside another item
   */
  static Laid of(DatePattern p, CountedDays days, Optional<LocalDate> beside) {
    if (p instanceof DatePattern.Week w) {
      return week(w, days);
    }
    if (p instanceof DatePattern.TeachingDay t) {
      return nth(t.n(), days.teachingDays(), Remark.Kind.AFTER_END);
    }
    if (p instanceof DatePattern.Meeting m) {
      return days.meetingDays().isEmpty()
          ? none(Remark.Kind.NO_MEETINGS)
          : nth(m.n(), days.meetingDays(), Remark.Kind.TOO_FEW_MEETINGS);
    }
    if (p instanceof DatePattern.FirstDay f) {
      return asSaid(days.firstDay().plusDays(f.days()), days);
    }
    if (p instanceof DatePattern.LastDay l) {
      return asSaid(days.lastDay().plusDays(l.days()), days);
    }
    if (p instanceof DatePattern.Fixed f) {
      return asSaid(f.day(), days);
    }
    if (p instanceof DatePattern.Finals f) {
      return finals(f.day(), days);
    }
    DatePattern.Beside b = (DatePattern.Beside) p;
    return beside
        .map(at -> inside(at.plusDays(b.days()), days, true))
        .orElseGet(() -> none(Remark.Kind.NOTHING_TO_FOLLOW));
  }

  private static Laid week(DatePattern.Week w, CountedDays days) {
    List<LocalDate> mondays = days.mondays();
    if (w.week() > mondays.size()) {
      LocalDate beyond = mondays.get(mondays.size() - 1).plusWeeks(w.week() - mondays.size());
      return instead(days.lastDay(), Remark.Kind.AFTER_END, on(beyond, w.day()));
    }
    return inside(on(mondays.get(w.week() - 1), w.day()), days, false);
  }

  private static LocalDate on(LocalDate monday, DayOfWeek day) {
    return monday.plusDays(day.getValue() - 1L);
  }

  private static Laid nth(int n, List<LocalDate> of, Remark.Kind tooMany) {
    LocalDate last = of.get(of.size() - 1);
    return n <= of.size()
        ? on(of.get(n - 1))
        : instead(last, tooMany, last.plusDays(n - of.size()));
  }

  /** What is said to be before the first or after the last day stays there. */
  private static Laid asSaid(LocalDate day, CountedDays days) {
    return days.inTerm(day) ? on(day) : instead(day, Remark.Kind.OUTSIDE, day);
  }

  /**
   * Within the term; the days between its last teaching day and the finals are in it.
   *
   * @param finalsToo whether it may be on a day of finals
   */
  private static Laid inside(LocalDate day, CountedDays days, boolean finalsToo) {
    TermCalendar c = days.calendar();
    if (day.isBefore(c.teaching().first())) {
      return instead(days.firstDay(), Remark.Kind.NO_SUCH_DAY, day);
    }
    boolean before = c.finals().map(f -> day.isBefore(f.first())).orElse(false);
    boolean in = c.finals().map(f -> finalsToo && f.contains(day)).orElse(false);
    return c.teaching().contains(day) || before || in
        ? on(day)
        : instead(days.lastDay(), Remark.Kind.AFTER_END, day);
  }

  private static Laid finals(DayOfWeek day, CountedDays days) {
    Optional<Days> finals = days.calendar().finals();
    if (finals.isEmpty()) {
      return instead(days.lastDay(), Remark.Kind.NO_FINALS, days.lastDay());
    }
    Days f = finals.get();
    LocalDate at =
        f.first().plusDays((day.getValue() - f.first().getDayOfWeek().getValue() + 7) % 7);
    return f.contains(at) ? on(at) : instead(f.last(), Remark.Kind.NO_SUCH_DAY, at);
  }
}
