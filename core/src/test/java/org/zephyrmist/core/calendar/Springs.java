package org.zephyrmist.core.calendar;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import org.zephyrmist.core.content.DatePattern;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.OffRule;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.TimingPattern;
import org.zephyrmist.core.content.When;

/** The calendars of the worked cases, and ways to ask them. */
final class Springs {
  static final ZoneId CENTRAL = ZoneId.of("America/Chicago");
  static final LocalTime NIGHT = LocalTime.of(23, 59);
  static final ItemKey ITEM = new ItemKey("essay");

  private Springs() {}

  /** 18 January to 7 May 2027, off 15 February, break 8 to 12 March, finals 10 to 14 May. */
  static TermCalendar spring(WeekCount count) {
    return new TermCalendar(
        new Days(day("2027-01-18"), day("2027-05-07")),
        List.of(
            new DaysOff("Founders' Day", new Days(day("2027-02-15"), day("2027-02-15"))),
            new DaysOff("Spring break", new Days(day("2027-03-08"), day("2027-03-12")))),
        Optional.of(new Days(day("2027-05-10"), day("2027-05-14"))),
        CENTRAL,
        count,
        TermCalendar.USUAL);
  }

  static CountedDays days(WeekCount count) {
    return new CountedDays(spring(count));
  }

  /** Autumn 2026 from Monday 31 August. */
  static CountedDays autumn() {
    return new CountedDays(TermCalendar.plain(day("2026-08-31"), day("2026-12-18"), CENTRAL));
  }

  static LocalDate day(String text) {
    return LocalDate.parse(text);
  }

  static LocalDateTime at(String text) {
    return LocalDateTime.parse(text);
  }

  static Timing due(String real) {
    return new Timing(Optional.empty(), Optional.of(at(real)), Optional.empty());
  }

  static When when(String pattern) {
    return new When(DatePattern.of(pattern).orElseThrow(), NIGHT);
  }

  static Undated item(String key, Timing t) {
    return new Undated(new ItemKey(key), Kind.ASSIGNMENT, Optional.empty(), t);
  }

  static Undated item(String key, Point p, String pattern) {
    return item(key, Timing.NONE.with(TimingPattern.NONE.with(p, Optional.of(when(pattern)))));
  }

  static Dated due(String pattern, CountedDays days, OffRule rule) {
    return DatePlan.of(
            List.of(item(ITEM.value(), Point.DUE, pattern)),
            days,
            new OffDays(rule, java.util.Map.of(), java.util.Map.of()))
        .get(ITEM);
  }

  static Dated due(String pattern, CountedDays days) {
    return due(pattern, days, OffRule.NEXT_TEACHING_DAY);
  }

  static LocalDate dueDay(Dated d) {
    return d.timing().due().orElseThrow().toLocalDate();
  }
}
