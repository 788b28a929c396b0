package org.zephyrmist.server.tool;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.tool.LaunchAnswer;
import org.zephyrmist.core.tool.LaunchAnswer.Outcome;
import org.zephyrmist.server.tool.ToolLaunches.Answered;

class SilentToolsTest {
  private final List<String> sent = new ArrayList<>();
  private final SilentTools silent = new SilentTools(3);

  private Outcome asked(String host, Outcome comes) {
    return silent
        .asked(
            host,
            () -> {
              sent.add(host);
              return new Answered(new LaunchAnswer(comes, ""), 10);
            })
        .answer()
        .outcome();
  }

  @Test
  void afterSomeLaunchesInARowThatNothingCameOfNoMoreAreSent() {
    for (int i = 0; i < 10; i++) {
      assertThat(asked("down.example", Outcome.NO_ANSWER)).isEqualTo(Outcome.NO_ANSWER);
    }
    assertThat(sent).hasSize(3);
    assertThat(asked("up.example", Outcome.OPENED)).isEqualTo(Outcome.OPENED);
  }

  @Test
  void oneAnswerBetweenBeginsTheCountAnew() {
    asked("slow.example", Outcome.NO_ANSWER);
    asked("slow.example", Outcome.NO_ANSWER);
    asked("slow.example", Outcome.REFUSED);
    asked("slow.example", Outcome.NO_ANSWER);
    asked("slow.example", Outcome.NO_ANSWER);
    assertThat(asked("slow.example", Outcome.OPENED)).isEqualTo(Outcome.OPENED);
    assertThat(sent).hasSize(6);
  }
}
