package org.zephyrmist.core.handover;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class RemindersTest {
  private static final LocalDate DAY = LocalDate.of(2027, 1, 17);
  private static final Due OWN = new Due(Optional.of(DAY), Optional.empty());
  private static final Due OF_TERM = new Due(Optional.empty(), Optional.of(DAY.plusDays(1)));

  /** Days, counted from the one on which it is due, on which mail goes out. */
  private static List<Integer> days(Due due, Optional<LocalDate> first, int from, int to) {
    List<Integer> sent = new ArrayList<>();
    Optional<LocalDate> last = first;
    for (int i = from; i <= to; i++) {
      LocalDate today = DAY.plusDays(i);
      if (Reminders.due(due, last, today)) {
        sent.add(i);
        last = Optional.of(today);
      }
    }
    return sent;
  }

  @Test
  void aWeekAndADayBeforeThenFromTheDayAfterEveryWeek() {
    assertThat(days(OWN, Optional.empty(), -30, 20)).containsExactly(-7, -1, 1, 8, 15);
  }

  @Test
  void nobodyHearsOfItFromAProgramFirst() {
    assertThat(days(OF_TERM, Optional.empty(), -30, 20)).isEmpty();
    assertThat(days(OF_TERM, Optional.of(DAY.minusDays(20)), -19, 3)).containsExactly(-7, -1, 1);
  }

  @Test
  void whoWasRemindedByAPersonIsLeftInPeaceUntilTheNextDay() {
    assertThat(days(OWN, Optional.of(DAY.minusDays(6)), -5, 3)).containsExactly(-1, 1);
    assertThat(days(OWN, Optional.of(DAY.plusDays(2)), 3, 12)).containsExactly(9);
  }

  @Test
  void daysOnWhichNoServerRanAreMadeUpForOnce() {
    assertThat(days(OWN, Optional.empty(), -4, 0)).containsExactly(-4, -1);
    assertThat(days(OWN, Optional.empty(), 5, 12)).containsExactly(5, 12);
  }

  @Test
  void whereNoDayIsSaidNothingIsSent() {
    Due none = new Due(Optional.empty(), Optional.empty());
    assertThat(days(none, Optional.of(DAY), -30, 60)).isEmpty();
  }
}
