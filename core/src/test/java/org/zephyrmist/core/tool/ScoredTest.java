package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class ScoredTest {
  private static boolean differs(String outOf, String points) {
    return new Scored(
            Instant.EPOCH, new BigDecimal(outOf), Optional.ofNullable(points).map(BigDecimal::new))
        .differs();
  }

  @Test
  void pointsDifferByWhatTheyAreWorthNotByHowTheyAreWritten() {
    assertThat(differs("10", "10.0")).isFalse();
    assertThat(differs("10", "20")).isTrue();
    assertThat(differs("10", null)).isFalse();
  }
}
