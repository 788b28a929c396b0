package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zephyrmist.core.tool.TaskSides.Differs;
import org.zephyrmist.core.tool.TaskSides.Mend;

class TaskSidesTest {
  private static TaskSides task(String points, String outOf, String due, String toolDue) {
    return new TaskSides(
        Optional.of(points).filter(p -> !p.isEmpty()).map(BigDecimal::new),
        Optional.of(outOf).filter(p -> !p.isEmpty()).map(BigDecimal::new),
        Optional.of(due).filter(d -> !d.isEmpty()).map(LocalDateTime::parse),
        Optional.of(toolDue).filter(d -> !d.isEmpty()).map(LocalDateTime::parse));
  }

  @Test
  void pointsAndDatesDifferWhereBothSidesSaySomething() {
    assertThat(task("20", "10", "", "").differs()).containsExactly(Differs.POINTS);
    assertThat(task("10.0", "10", "", "").differs()).isEmpty();
    assertThat(task("", "10", "2027-02-12T18:00", "").differs()).isEmpty();
    assertThat(task("", "", "2027-02-12T18:00", "2027-02-14T18:00").differs())
        .containsExactly(Differs.DATE);
  }

  @Test
  void studentsSeeTheDateOfTheShellAndThatOfTheToolCounts() {
    TaskSides two = task("", "", "2027-02-12T18:00", "2027-02-14T18:00");
    assertThat(two.seen()).isEqualTo(two.due());
    assertThat(two.enforced()).isEqualTo(two.toolDue());
    TaskSides one = task("", "", "2027-02-12T18:00", "");
    assertThat(one.enforced()).isEqualTo(one.seen()).isEqualTo(one.due());
  }

  @Test
  void whichSideGivesWayFollowsFromWhoLeads() {
    assertThat(TaskSides.mend(Differs.DATE, DateMode.SHELL_LEADS)).isEqualTo(Mend.OPEN_AGAIN);
    assertThat(TaskSides.mend(Differs.DATE, DateMode.TOOL_LEADS)).isEqualTo(Mend.INTO_DRAFT);
    assertThat(TaskSides.mend(Differs.POINTS, DateMode.SHELL_LEADS)).isEqualTo(Mend.INTO_DRAFT);
  }

  @ParameterizedTest
  @CsvSource({
    ",",
    "2027-02-12T18:00,",
    ",2027-02-12T18:00",
    "2027-02-12T18:00,2027-02-12T18:00",
    "2027-02-12T18:00,2027-03-01T08:00"
  })
  void whereNothingDiffersTheDateThatIsSeenIsTheOneThatCounts(String here, String there) {
    TaskSides t = task("", "", here == null ? "" : here, there == null ? "" : there);
    assertThat(t.differs().isEmpty()).isEqualTo(t.seen().equals(t.enforced()));
  }
}
