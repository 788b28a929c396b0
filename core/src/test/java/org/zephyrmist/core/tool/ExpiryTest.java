package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.Optional;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ExpiryTest {
  private static final LocalDate TODAY = LocalDate.of(2026, 11, 27);

  @ParameterizedTest
  @CsvSource({"31,", "30, 30", "8, 30", "7, 7", "2, 7", "1, 1", "0, 1", "-1,"})
  void peopleAreToldThreeTimesBeforeTheEnd(int left, Integer due) {
    assertThat(Expiry.due(TODAY.plusDays(left), TODAY)).isEqualTo(Optional.ofNullable(due));
  }
}
