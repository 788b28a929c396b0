package org.zephyrmist.server.demo;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.zephyrmist.core.question.Answer;
import org.zephyrmist.core.question.Assessment;
import org.zephyrmist.core.question.QtiWriter;
import org.zephyrmist.core.question.Question;
import org.zephyrmist.core.question.QuestionSet;
import org.zephyrmist.core.question.QuestionType;

/** Questions about a week of a demo course. */
final class DemoQuestions {
  private static final BigDecimal HALF = new BigDecimal("1.5");

  private DemoQuestions() {}

  /** Two on each fact and one to think about. */
  static QuestionSet of(String id, DemoCourse.Week week) {
    List<QuestionSet.Part> all = new ArrayList<>();
    for (int i = 0; i < week.facts().size(); i++) {
      String fact = week.facts().get(i);
      all.add(trueOrFalse(id + "-" + i + "a", fact));
      all.add(choice(id + "-" + i + "b", fact));
    }
    all.add(essay(id + "-talk", week.talk()));
    return new QuestionSet(all);
  }

  /** As a quiz or a bank in QTI. */
  static byte[] qti(String ident, boolean bank, QuestionSet set) {
    return QtiWriter.withDraws(
        new Assessment(ident, "", "", Optional.empty(), Optional.empty(), bank, set, List.of()));
  }

  private static Question trueOrFalse(String id, String fact) {
    return question(
        id,
        QuestionType.TRUE_FALSE,
        "<p>True or false: " + fact + "</p>",
        List.of(answer("t", "True", 100), answer("f", "False", 0)),
        BigDecimal.ONE,
        "");
  }

  private static Question choice(String id, String fact) {
    return question(
        id,
        QuestionType.MULTIPLE_CHOICE,
        "<p>Which of these would you sign on the call sheet?</p>",
        List.of(
            answer("a", fact, 100),
            answer("b", "It depends on who is in the house.", 0),
            answer("c", "Only the designer needs to know that.", 0)),
        HALF,
        "");
  }

  private static Question essay(String id, String talk) {
    return question(
        id,
        QuestionType.ESSAY,
        "<p>" + talk + "</p>",
        List.of(),
        BigDecimal.ONE,
        "<p>Three sentences, one of them about safety.</p>");
  }

  private static Answer answer(String id, String html, int percent) {
    return new Answer(id, html, new BigDecimal(percent), "", false);
  }

  private static Question question(
      String id,
      QuestionType type,
      String html,
      List<Answer> answers,
      BigDecimal points,
      String solution) {
    return new Question(
        id,
        "",
        type,
        html,
        answers,
        points,
        "",
        type == QuestionType.MULTIPLE_CHOICE,
        new Question.Notes("", "", "", "", solution),
        Optional.empty());
  }
}
