package org.zephyrmist.core.question;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;

/** What a quiz or a bank asks, in its order. */
public record QuestionSet(List<Part> parts) {
  public QuestionSet {
    parts = List.copyOf(parts);
    Set<String> ids = new HashSet<>();
    for (Question q : all(parts)) {
      if (!ids.add(q.id())) {
        throw new IllegalArgumentException("Two questions have the id " + q.id());
      }
    }
  }

  /** A question, or a group of them. */
  public sealed interface Part permits Question, Group {
    /** The questions in it. */
    List<Question> questions();

    /** What it adds to the points of a quiz. */
    BigDecimal worth();
  }

  /**
   * Questions under a heading, of which all or some are asked (QTI 1.2, "selection and ordering").
   *
   * @param id of the section
   * @param title may be empty
   * @param draw how many are asked, chosen by chance; none: all of them
   * @param pointsEach that every drawn question earns; none: its own
   * @param bank identifier of the bank they are drawn from, where they stand elsewhere
   */
  public record Group(
      String id,
      String title,
      Optional<Integer> draw,
      Optional<BigDecimal> pointsEach,
      Optional<String> bank,
      List<Question> questions)
      implements Part {
    public Group {
      questions = List.copyOf(questions);
    }

    @Override
    public BigDecimal worth() {
      if (draw.isEmpty()) {
        return questions.stream().map(this::each).reduce(BigDecimal.ZERO, BigDecimal::add);
      }
      BigDecimal each =
          pointsEach.orElseGet(
              () -> questions.stream().findFirst().map(Question::points).orElse(BigDecimal.ONE));
      return each.multiply(new BigDecimal(draw.get()));
    }

    private BigDecimal each(Question q) {
      return pointsEach.orElse(q.points());
    }
  }

  /** Every question, drawn or not. */
  public List<Question> questions() {
    return all(parts);
  }

  private static List<Question> all(List<Part> parts) {
    List<Question> all = new ArrayList<>();
    parts.forEach(p -> all.addAll(p.questions()));
    return all;
  }

  /** How many questions a student is asked. */
  public int asked() {
    return parts.stream()
        .mapToInt(
            p ->
                p instanceof Group g && g.draw().isPresent()
                    ? g.draw().get()
                    : p.questions().size())
        .sum();
  }

  /** Points of all that is asked. */
  public BigDecimal points() {
    return parts.stream().map(Part::worth).reduce(BigDecimal.ZERO, BigDecimal::add);
  }

  /** The same with every HTML text replaced. */
  public QuestionSet map(UnaryOperator<String> text) {
    return new QuestionSet(
        parts.stream()
            .map(
                p ->
                    p instanceof Group g
                        ? new Group(
                            g.id(),
                            g.title(),
                            g.draw(),
                            g.pointsEach(),
                            g.bank(),
                            g.questions().stream().map(q -> q.map(text)).toList())
                        : ((Question) p).map(text))
            .map(Part.class::cast)
            .toList());
  }

  /** Every HTML text in it, in its order. */
  public List<String> texts() {
    List<String> all = new ArrayList<>();
    map(
        t -> {
          all.add(t);
          return t;
        });
    return all;
  }
}
