package org.zephyrmist.core.tool;

import java.util.Optional;
import org.zephyrmist.core.tool.LaunchAnswer.Outcome;
import org.zephyrmist.core.tool.Seen.Tested;

/**
 * What a tool made of an instructor, and of a student who was only sent where the instructor got
 * in.
 *
 * @param learner none if nobody was sent
 */
public record LaunchPair(LaunchAnswer instructor, Optional<LaunchAnswer> learner) {
  /** What the two say, refusals of the instructor aside. */
  public Tested tested() {
    if (instructor.outcome() == Outcome.NO_ANSWER || is(Outcome.NO_ANSWER)) {
      return Tested.NO_ANSWER;
    }
    return is(Outcome.REFUSED) ? Tested.STUDENTS_SHUT_OUT : Tested.NOTHING_WRONG;
  }

  private boolean is(Outcome o) {
    return learner.filter(a -> a.outcome() == o).isPresent();
  }

  /** Why the instructor was refused; nothing if they were not. */
  public Optional<String> refused() {
    if (instructor.outcome() != Outcome.REFUSED) {
      return Optional.empty();
    }
    return Optional.of(
        instructor.said().isEmpty() ? "It refused and said nothing." : instructor.said());
  }
}
