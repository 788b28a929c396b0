package org.zephyrmist.core.calendar;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.core.calendar.Springs.day;

import org.junit.jupiter.api.Test;

class TermCalendarTest {
  private static final TermCalendar SPRING = Springs.spring(WeekCount.TEACHING);

  private static Days days(String first, String last) {
    return new Days(day(first), day(last));
  }

  @Test
  void aPartOfATermHasItsDaysOffAndNoFinals() {
    TermCalendar half = SPRING.within(days("2027-03-08", "2027-05-07"));
    assertThat(half.off()).extracting(DaysOff::name).containsExactly("Spring break");
    assertThat(half.finals()).isEmpty();
    assertThat(half.weeks()).isEqualTo(WeekCount.TEACHING);
    assertThat(half.zone()).isEqualTo(SPRING.zone());
  }

  @Test
  void aPartInWhichNobodyWouldTeachIsPlain() {
    TermCalendar week = SPRING.within(days("2027-03-08", "2027-03-12"));
    assertThat(week.off()).isEmpty();
    assertThat(week.teaching()).isEqualTo(days("2027-03-08", "2027-03-12"));
  }
}
