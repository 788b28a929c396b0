package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class StudentCountsTest {
  private static final StudentCounts BEFORE = new StudentCounts(26, 14, 3, 8);

  @Test
  void whatCameMeanwhileIsNoLoss() {
    assertThat(BEFORE.keptIn(BEFORE)).isTrue();
    assertThat(BEFORE.keptIn(new StudentCounts(27, 15, 4, 9))).isTrue();
  }

  @Test
  void lessOfAnythingIs() {
    assertThat(BEFORE.keptIn(new StudentCounts(25, 14, 3, 8))).isFalse();
    assertThat(BEFORE.keptIn(new StudentCounts(26, 13, 9, 9))).isFalse();
    assertThat(BEFORE.keptIn(new StudentCounts(26, 14, 2, 9))).isFalse();
    assertThat(BEFORE.keptIn(new StudentCounts(26, 14, 3, 7))).isFalse();
  }
}
