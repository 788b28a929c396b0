package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.tool.LaunchAnswer.Outcome;
import org.zephyrmist.core.tool.Seen.Tested;

class LaunchPairTest {
  private static final LaunchAnswer IN = new LaunchAnswer(Outcome.OPENED, "");
  private static final LaunchAnswer OUT = new LaunchAnswer(Outcome.REFUSED, "Not you.");
  private static final LaunchAnswer SILENT = new LaunchAnswer(Outcome.NO_ANSWER, "HTTP status 503");

  private static Tested tested(LaunchAnswer instructor, LaunchAnswer learner) {
    return new LaunchPair(instructor, Optional.ofNullable(learner)).tested();
  }

  @Test
  void bothInIsNothingWrong() {
    assertThat(tested(IN, IN)).isEqualTo(Tested.NOTHING_WRONG);
  }

  @Test
  void whereAnInstructorGetsInAndAStudentDoesNotStudentsAreShutOut() {
    assertThat(tested(IN, OUT)).isEqualTo(Tested.STUDENTS_SHUT_OUT);
  }

  @Test
  void aToolThatIsSilentToOneIsSilent() {
    assertThat(tested(SILENT, null)).isEqualTo(Tested.NO_ANSWER);
    assertThat(tested(IN, SILENT)).isEqualTo(Tested.NO_ANSWER);
  }

  @Test
  void anInstructorWhoIsRefusedHearsWhy() {
    assertThat(new LaunchPair(OUT, Optional.empty()).refused()).contains("Not you.");
    assertThat(new LaunchPair(new LaunchAnswer(Outcome.REFUSED, ""), Optional.empty()).refused())
        .contains("It refused and said nothing.");
    assertThat(new LaunchPair(IN, Optional.of(OUT)).refused()).isEmpty();
    assertThat(tested(OUT, null)).isEqualTo(Tested.NOTHING_WRONG);
  }
}
