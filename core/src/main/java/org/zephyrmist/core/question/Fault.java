package org.zephyrmist.core.question;

import java.util.List;
import java.util.Optional;

/** What is wrong with a question that somebody writes. */
public final class Fault {
  private Fault() {}

  /** The first thing that is wrong, as one sentence; none if students can be asked it. */
  public static Optional<String> of(Question q) {
    if (q.kept().isPresent()) {
      return Optional.empty();
    }
    if (q.html().isEmpty()) {
      return Optional.of("It asks nothing.");
    }
    List<Answer> answers = q.answers();
    if (answers.stream().anyMatch(a -> a.html().isBlank())) {
      return Optional.of("One of its answers is empty.");
    }
    long right = answers.stream().filter(Answer::right).count();
    return switch (q.type()) {
      case MULTIPLE_CHOICE ->
          answers.size() < 2
              ? Optional.of("It needs two answers at least.")
              : wholly(answers) ? Optional.empty() : Optional.of("No answer earns all points.");
      case TRUE_FALSE ->
          answers.size() == 2 && right == 1
              ? Optional.empty()
              : Optional.of("It has two answers, one of which is right.");
      case MULTIPLE_RESPONSE ->
          answers.size() < 2 || right == 0
              ? Optional.of("It needs two answers at least, one of them right.")
              : Optional.empty();
      case FILL_IN, PATTERN_MATCH ->
          right == 0 ? Optional.of("It needs an answer that is taken as right.") : Optional.empty();
      case ESSAY, OTHER -> Optional.empty();
    };
  }

  private static boolean wholly(List<Answer> answers) {
    return answers.stream().anyMatch(a -> a.percent().compareTo(Answer.ALL) >= 0);
  }
}
