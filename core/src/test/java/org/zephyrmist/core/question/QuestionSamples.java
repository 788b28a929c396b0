package org.zephyrmist.core.question;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.zephyrmist.core.Laws;

/** Questions drawn for tests. */
public final class QuestionSamples {
  private QuestionSamples() {}

  private static String html(Random r) {
    return Laws.text(
        r,
        3,
        "<p>How much does a 20-amp circuit carry?</p>",
        "Count &lt; 3 & go",
        "<b>bar</b>",
        "é±");
  }

  private static String some(Random r) {
    return r.nextInt(3) == 0 ? html(r) : "";
  }

  private static List<Answer> chosen(Random r, QuestionType type) {
    List<Answer> all = new ArrayList<>();
    int n = type == QuestionType.TRUE_FALSE ? 2 : 2 + r.nextInt(4);
    int right = r.nextInt(n);
    boolean partly = type == QuestionType.MULTIPLE_RESPONSE && r.nextBoolean();
    for (int i = 0; i < n; i++) {
      int percent =
          i == right
              ? 100
              : type == QuestionType.MULTIPLE_RESPONSE && !partly
                  ? (r.nextBoolean() ? 100 : 0)
                  : type == QuestionType.TRUE_FALSE ? 0 : r.nextInt(5) * 20 - (partly ? 40 : 0);
      if (!partly && type != QuestionType.MULTIPLE_RESPONSE) {
        percent = Math.max(0, percent);
      }
      String text = "Answer " + i + " " + html(r);
      all.add(new Answer("a" + i, canonical(text), new BigDecimal(percent), some(r), false));
    }
    return all;
  }

  private static List<Answer> written(Random r) {
    List<Answer> all = new ArrayList<>();
    for (int i = 0, n = 1 + r.nextInt(3); i < n; i++) {
      int percent = i == 0 ? 100 : 25 * r.nextInt(5);
      all.add(
          new Answer(
              String.valueOf(i + 1),
              "watt <" + i + "> & more",
              new BigDecimal(percent),
              some(r),
              r.nextBoolean()));
    }
    return all;
  }

  private static String canonical(String html) {
    return org.zephyrmist.core.content.Html.canonical(html);
  }

  public static Question question(Random r, String id) {
    QuestionType type = QuestionType.values()[r.nextInt(QuestionType.values().length - 1)];
    List<Answer> answers =
        type.chosen() ? chosen(r, type) : type.written() ? written(r) : List.of();
    Question.Notes notes =
        type == QuestionType.ESSAY
            ? new Question.Notes(some(r), "", "", some(r), some(r))
            : new Question.Notes(some(r), some(r), some(r), some(r), some(r));
    return new Question(
        id,
        r.nextBoolean() ? "Question \"" + id + "\"" : "",
        type,
        html(r),
        answers,
        new BigDecimal(r.nextInt(20)).divide(new BigDecimal(2)),
        r.nextBoolean() ? "Unit 3" : "",
        type.chosen() && r.nextBoolean(),
        notes,
        Optional.empty());
  }

  /** A set; with groups and draws, or without. */
  public static QuestionSet set(Random r, boolean groups) {
    List<QuestionSet.Part> parts = new ArrayList<>();
    for (int i = 0, n = 1 + r.nextInt(6); i < n; i++) {
      if (groups && r.nextInt(3) == 0) {
        List<Question> in = new ArrayList<>();
        for (int k = 0; k < r.nextInt(4); k++) {
          in.add(question(r, "g" + i + "q" + k));
        }
        parts.add(
            new QuestionSet.Group(
                "g" + i,
                "Group " + i,
                r.nextBoolean() ? Optional.of(1 + r.nextInt(3)) : Optional.empty(),
                r.nextBoolean() ? Optional.of(new BigDecimal(2)) : Optional.empty(),
                r.nextBoolean() ? Optional.of("bank-1") : Optional.empty(),
                in));
      } else {
        parts.add(question(r, "q" + i));
      }
    }
    return new QuestionSet(parts);
  }
}
