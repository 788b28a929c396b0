package org.zephyrmist.core.content;

import java.math.BigDecimal;
import java.util.Optional;

/**
 * How an item counts.
 *
 * @param points highest points, if it is graded
 * @param category key of its grade category
 * @param rubric key of its rubric
 * @param attempts how often it may be tried, if limited
 * @param weight of a grade category, in percent
 */
public record Grading(
    Optional<BigDecimal> points,
    Optional<String> category,
    Optional<String> rubric,
    Optional<Integer> attempts,
    Optional<BigDecimal> weight) {
  /** Not graded. */
  public static final Grading NONE =
      new Grading(
          Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty());

  public Grading {
    points = points.map(Grading::plain);
    weight = weight.map(Grading::plain);
  }

  /** Graded with these points and nothing else. */
  public static Grading points(BigDecimal points) {
    return new Grading(
        Optional.of(points),
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        Optional.empty());
  }

  /** 10.0 and 10 are one value. */
  static BigDecimal plain(BigDecimal n) {
    BigDecimal s = n.stripTrailingZeros();
    return s.scale() < 0 ? s.setScale(0) : s;
  }
}
