package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.zephyrmist.core.tool.LaunchAnswer.Outcome;

class LaunchAnswerTest {
  private static final String BACK = "http://zephyrmist.example/back";

  @Test
  void aPageIsAnOpening() {
    assertThat(LaunchAnswer.of(200, "", BACK, "")).isEqualTo(new LaunchAnswer(Outcome.OPENED, ""));
  }

  @Test
  void whoIsSentBackWasNotLetInAndHearsWhy() {
    assertThat(
            LaunchAnswer.of(
                303, BACK + "?lti_errormsg=The%20signature+is+wrong.&lti_errorlog=x", BACK, ""))
        .isEqualTo(new LaunchAnswer(Outcome.REFUSED, "The signature is wrong."));
    assertThat(LaunchAnswer.of(303, BACK, BACK, ""))
        .isEqualTo(new LaunchAnswer(Outcome.REFUSED, ""));
  }

  @Test
  void anErrorIsNoOpening() {
    assertThat(LaunchAnswer.of(503, "", BACK, ""))
        .isEqualTo(new LaunchAnswer(Outcome.NO_ANSWER, "HTTP status 503"));
    assertThat(LaunchAnswer.of(403, "", BACK, "").outcome()).isEqualTo(Outcome.REFUSED);
    assertThat(LaunchAnswer.of(429, "", BACK, "").outcome()).isEqualTo(Outcome.NO_ANSWER);
  }

  @Test
  void whatAToolSaysIsOneShortLine() {
    String said =
        LaunchAnswer.of(302, BACK + "?lti_errormsg=" + "a%0Ab+".repeat(400) + "%zz", BACK, "")
            .said();
    assertThat(said).hasSizeLessThan(310).doesNotContain("\n");
  }

  @Test
  void aPageThatRefusesIsReadAndOneThatFailedIsNot() {
    String page =
        "<html><head><title>Tool</title></head><body><p>Not known <b>here</b>.</p></body>";
    assertThat(LaunchAnswer.of(403, "", BACK, page).said())
        .isEqualTo("HTTP status 403: Not known here.");
    assertThat(LaunchAnswer.of(500, "", BACK, page).said()).isEqualTo("HTTP status 500");
  }
}
