package org.zephyrmist.core.question;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class FaultTest {
  private static Optional<String> fault(QuestionType type, String html, int... percents) {
    List<Answer> answers = new ArrayList<>();
    for (int p : percents) {
      String id = "a" + answers.size();
      answers.add(new Answer(id, "Answer " + id, new BigDecimal(p), "", false));
    }
    return Fault.of(
        new Question(
            "q",
            "",
            type,
            html,
            answers,
            BigDecimal.ONE,
            "",
            false,
            Question.Notes.NONE,
            Optional.empty()));
  }

  @Test
  void whatStudentsCanBeAskedHasNoFault() {
    assertThat(fault(QuestionType.MULTIPLE_CHOICE, "<p>Which?</p>", 100, 0)).isEmpty();
    assertThat(fault(QuestionType.MULTIPLE_RESPONSE, "<p>Which?</p>", 50, 50, 0)).isEmpty();
    assertThat(fault(QuestionType.TRUE_FALSE, "<p>Is it?</p>", 0, 100)).isEmpty();
    assertThat(fault(QuestionType.FILL_IN, "<p>It is …</p>", 100)).isEmpty();
    assertThat(fault(QuestionType.ESSAY, "<p>Tell.</p>")).isEmpty();
  }

  @Test
  void whatNobodyCouldAnswerRightlyIsTold() {
    assertThat(fault(QuestionType.ESSAY, "")).contains("It asks nothing.");
    assertThat(fault(QuestionType.MULTIPLE_CHOICE, "<p>Which?</p>", 50, 50))
        .contains("No answer earns all points.");
    assertThat(fault(QuestionType.MULTIPLE_CHOICE, "<p>Which?</p>", 100)).isPresent();
    assertThat(fault(QuestionType.TRUE_FALSE, "<p>Is it?</p>", 100, 100)).isPresent();
    assertThat(fault(QuestionType.MULTIPLE_RESPONSE, "<p>Which?</p>", 0, 0)).isPresent();
    assertThat(fault(QuestionType.PATTERN_MATCH, "<p>It is …</p>")).isPresent();
  }
}
