package org.zephyrmist.core.question;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Html;

/**
 * One question.
 *
 * @param id lasting within its set
 * @param title short name; may be empty
 * @param html what is asked
 * @param answers to choose from, or expected; empty for an essay
 * @param points that the whole right answer earns
 * @param category the standard's {@code cc_question_category}; may be empty
 * @param shuffled whether answers stand in an order of chance
 * @param notes what is said before and after answering
 * @param kept the question's own XML, where it is of no type of the standard
 */
public record Question(
    String id,
    String title,
    QuestionType type,
    String html,
    List<Answer> answers,
    BigDecimal points,
    String category,
    boolean shuffled,
    Notes notes,
    Optional<String> kept)
    implements QuestionSet.Part {
  public Question {
    html = Html.canonical(html);
    points = Grading.points(points).points().orElseThrow();
    answers = List.copyOf(answers);
  }

  /**
   * What is said besides the question; HTML, each may be empty.
   *
   * @param always shown after any answer
   * @param right shown after a right one
   * @param wrong shown after a wrong one
   * @param hint shown on request
   * @param solution the model answer
   */
  public record Notes(String always, String right, String wrong, String hint, String solution) {
    public static final Notes NONE = new Notes("", "", "", "", "");

    public Notes {
      always = Html.canonical(always);
      right = Html.canonical(right);
      wrong = Html.canonical(wrong);
      hint = Html.canonical(hint);
      solution = Html.canonical(solution);
    }

    Notes map(UnaryOperator<String> text) {
      return new Notes(
          text.apply(always),
          text.apply(right),
          text.apply(wrong),
          text.apply(hint),
          text.apply(solution));
    }
  }

  /** The same with every HTML text replaced; expected texts are no HTML and stay. */
  public Question map(UnaryOperator<String> text) {
    List<Answer> mapped =
        answers.stream()
            .map(
                a ->
                    new Answer(
                        a.id(),
                        type.chosen() ? text.apply(a.html()) : a.html(),
                        a.percent(),
                        text.apply(a.feedback()),
                        a.exactCase()))
            .toList();
    return new Question(
        id,
        title,
        type,
        text.apply(html),
        mapped,
        points,
        category,
        shuffled,
        notes.map(text),
        kept.map(k -> KeptXml.map(k, text)));
  }

  @Override
  public List<Question> questions() {
    return List.of(this);
  }

  @Override
  public BigDecimal worth() {
    return points;
  }
}
