package org.zephyrmist.core.calendar;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;

/**
 * How much is due in a week of a calendar.
 *
 * @param number of the week as the calendar counts it; none in a week that does not count
 * @param monday of it
 * @param due how many items
 * @param most that are due on one day of it
 */
public record WeekLoad(Optional<Integer> number, LocalDate monday, int due, int most) {

  /** Every week from the first to the last of the calendar, its finals too. */
  public static List<WeekLoad> of(CountedDays days, Collection<Dated> dates) {
    List<LocalDate> due =
        dates.stream().flatMap(d -> d.timing().due().stream()).map(t -> t.toLocalDate()).toList();
    List<WeekLoad> weeks = new ArrayList<>();
    LocalDate end = days.calendar().end();
    for (LocalDate m = CountedDays.monday(days.calendar().teaching().first());
        !m.isAfter(end);
        m = m.plusWeeks(1)) {
      LocalDate monday = m;
      List<LocalDate> here =
          due.stream().filter(d -> CountedDays.monday(d).equals(monday)).toList();
      int most =
          here.stream()
              .mapToInt(d -> (int) here.stream().filter(d::equals).count())
              .max()
              .orElse(0);
      weeks.add(new WeekLoad(days.week(monday), monday, here.size(), most));
    }
    return weeks;
  }
}
