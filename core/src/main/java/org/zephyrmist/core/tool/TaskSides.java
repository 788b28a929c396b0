package org.zephyrmist.core.tool;

import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.util.EnumSet;
import java.util.Optional;
import java.util.Set;

/**
 * A task that is done in a tool, as its shell and its tool have it.
 *
 * @param points in the shell; none if it is not graded
 * @param outOf points in the tool (AGS 2.0, section 3.2, "scoreMaximum"); none if it never said
 * @param due in the shell, local
 * @param toolDue by which the tool goes (AGS 2.0, section 3.2, "endDateTime"), in the shell's time
 */
public record TaskSides(
    Optional<BigDecimal> points,
    Optional<BigDecimal> outOf,
    Optional<LocalDateTime> due,
    Optional<LocalDateTime> toolDue) {

  /** In what the two do not agree. */
  public enum Differs {
    /** Scores are scaled. */
    POINTS,
    /** Students see one date, and the other counts. */
    DATE
  }

  /** What would make them agree. */
  public enum Mend {
    /** What the tool has comes into the draft, and with its next version into all sections. */
    INTO_DRAFT,
    /** The tool takes what the shell has when an instructor opens it from there. */
    OPEN_AGAIN
  }

  /** What one side does not say, it cannot say otherwise. */
  public Set<Differs> differs() {
    Set<Differs> all = EnumSet.noneOf(Differs.class);
    if (points.isPresent() && outOf.isPresent() && points.get().compareTo(outOf.get()) != 0) {
      all.add(Differs.POINTS);
    }
    if (due.isPresent() && toolDue.isPresent() && !due.equals(toolDue)) {
      all.add(Differs.DATE);
    }
    return all;
  }

  /** The date that students see: that of the shell, where it has one. */
  public Optional<LocalDateTime> seen() {
    return due.or(() -> toolDue);
  }

  /** The date that counts: that of the tool, which takes the work, where it has one. */
  public Optional<LocalDateTime> enforced() {
    return toolDue.or(() -> due);
  }

  /** Points are the tool's own; of dates that side gives way which does not lead. */
  public static Mend mend(Differs d, DateMode leads) {
    return d == Differs.DATE && leads == DateMode.SHELL_LEADS ? Mend.OPEN_AGAIN : Mend.INTO_DRAFT;
  }
}
