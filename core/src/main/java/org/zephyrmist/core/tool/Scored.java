package org.zephyrmist.core.tool;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.Optional;

/**
 * The last score that came back from a tool.
 *
 * @param outOf points that the tool gave it out of (AGS 2.0, section 3.4, "scoreMaximum")
 * @param points of its task in the shell; none if it has none
 */
public record Scored(Instant at, BigDecimal outOf, Optional<BigDecimal> points) {
  /** Whether the tool's points are not the shell's, so that scores are scaled. */
  public boolean differs() {
    return points.filter(p -> p.compareTo(outOf) != 0).isPresent();
  }
}
