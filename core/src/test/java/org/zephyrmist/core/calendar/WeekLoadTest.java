package org.zephyrmist.core.calendar;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.Timing;

/** How much is due in each week. */
class WeekLoadTest {
  private static Dated due(String at) {
    return new Dated(Timing.NONE.with(Point.DUE, Optional.of(LocalDateTime.parse(at))), List.of());
  }

  @Test
  void eachWeekHasWhatIsDueInItAndTheMostOfOneDay() {
    CountedDays three =
        new CountedDays(
            TermCalendar.plain(
                LocalDate.parse("2027-01-20"), LocalDate.parse("2027-02-05"), ZoneOffset.UTC));
    List<WeekLoad> weeks =
        WeekLoad.of(
            three,
            List.of(
                due("2027-01-22T23:59"),
                due("2027-02-01T09:00"),
                due("2027-02-01T23:59"),
                due("2027-02-05T09:00"),
                new Dated(Timing.NONE, List.of())));
    assertThat(weeks).extracting(w -> w.number().orElseThrow()).containsExactly(1, 2, 3);
    assertThat(weeks).extracting(WeekLoad::due).containsExactly(1, 0, 3);
    assertThat(weeks).extracting(WeekLoad::most).containsExactly(1, 0, 2);
  }
}
