package org.zephyrmist.core.question;

import java.math.BigDecimal;
import org.zephyrmist.core.content.Html;

/**
 * One answer to choose, or one expected text.
 *
 * @param id within its question
 * @param html of an answer to choose; of an expected one the plain text, as it is compared
 * @param percent of the question's points that it earns: 0 for a wrong one, 100 for a right one
 * @param feedback HTML shown to whoever gives it; may be empty
 * @param exactCase of a written one: letter case counts
 */
public record Answer(
    String id, String html, BigDecimal percent, String feedback, boolean exactCase) {
  /** What a right answer earns. */
  public static final BigDecimal ALL = new BigDecimal(100);

  public Answer {
    feedback = Html.canonical(feedback);
    percent = percent.signum() == 0 ? BigDecimal.ZERO : stripped(percent);
  }

  private static BigDecimal stripped(BigDecimal n) {
    BigDecimal s = n.stripTrailingZeros();
    return s.scale() < 0 ? s.setScale(0) : s;
  }

  /** Whether it earns anything. */
  public boolean right() {
    return percent.signum() > 0;
  }
}
