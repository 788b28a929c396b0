package org.zephyrmist.core.handover;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zephyrmist.core.handover.HandOverKind.CLEAR_SHELL;
import static org.zephyrmist.core.handover.HandOverKind.OPEN_ONCE;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class HandOverTest {
  private static final LocalDate FIRST = LocalDate.of(2027, 1, 18);

  private static Steps steps(HandOverKind kind, String platform, String host, String text) {
    return new Steps(kind, platform, host, text, "");
  }

  private static final List<Steps> ALL =
      List.of(
          steps(OPEN_ONCE, "", "", "of all"),
          steps(OPEN_ONCE, "p1", "", "of the platform"),
          steps(OPEN_ONCE, "", "cuebench.example", "of the tool"),
          steps(OPEN_ONCE, "p1", "cuebench.example", "of both"));

  private static String said(String platform, String host) {
    return Steps.of(ALL, OPEN_ONCE, platform, host).map(Steps::text).orElse("");
  }

  @Test
  void theNarrowestStepsCount() {
    assertThat(said("p1", "cuebench.example")).isEqualTo("of both");
    assertThat(said("p2", "cuebench.example")).isEqualTo("of the tool");
    assertThat(said("p1", "else.example")).isEqualTo("of the platform");
    assertThat(said("p2", "else.example")).isEqualTo("of all");
    assertThat(Steps.of(ALL, CLEAR_SHELL, "p1", "")).isEmpty();
  }

  @Test
  void theirOrderDoesNotMatter() {
    List<Steps> turned = new ArrayList<>(ALL);
    for (int i = 0; i < ALL.size(); i++) {
      Collections.rotate(turned, 1);
      assertThat(Steps.of(turned, OPEN_ONCE, "p1", "cuebench.example").orElseThrow().text())
          .isEqualTo("of both");
    }
  }

  @Test
  void aHandOverIsDueTheDayBeforeTheTermBeginsUnlessSomebodySaysOtherwise() {
    Due due = new Due(Optional.empty(), Optional.of(FIRST));
    assertThat(due.day()).contains(FIRST.minusDays(1));
    assertThat(due.overdue(FIRST.minusDays(1))).isFalse();
    assertThat(due.overdue(FIRST)).isTrue();
    Due own = new Due(Optional.of(FIRST.plusDays(7)), Optional.of(FIRST));
    assertThat(own.overdue(FIRST)).isFalse();
    assertThat(new Due(Optional.empty(), Optional.empty()).overdue(FIRST)).isFalse();
  }
}
