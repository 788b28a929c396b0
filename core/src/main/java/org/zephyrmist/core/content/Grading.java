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
 * @param minutes it may take, if limited
 * @param handIn how work is handed in, where that is said
 * @param groupSet key of the group set whose groups do it together, if they do
 */
public record Grading(
    Optional<BigDecimal> points,
    Optional<String> category,
    Optional<String> rubric,
    Optional<Integer> attempts,
    Optional<BigDecimal> weight,
    Optional<Integer> minutes,
    Optional<HandIn> handIn,
    Optional<String> groupSet) {
  private static final BigDecimal MOST = new BigDecimal(100_000);

  /** Not graded. */
  public static final Grading NONE =
      new Grading(
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          Optional.empty());

  public Grading {
    points = points.map(Grading::plain);
    weight = weight.map(Grading::plain);
  }

  /** The same but for its points. */
  public Grading withPoints(Optional<BigDecimal> to) {
    return new Grading(to, category, rubric, attempts, weight, minutes, handIn, groupSet);
  }

  /** The same but for how often and how long it may be tried. */
  public Grading withLimits(Optional<Integer> attempts, Optional<Integer> minutes) {
    return new Grading(points, category, rubric, attempts, weight, minutes, handIn, groupSet);
  }

  /** The same but for how work is handed in. */
  public Grading withHandIn(Optional<HandIn> to) {
    return new Grading(points, category, rubric, attempts, weight, minutes, to, groupSet);
  }

  /** The same but for the grade category it counts into. */
  public Grading withCategory(Optional<String> to) {
    return new Grading(points, to, rubric, attempts, weight, minutes, handIn, groupSet);
  }

  /** The same but for the rubric it is graded by. */
  public Grading withRubric(Optional<String> to) {
    return new Grading(points, category, to, attempts, weight, minutes, handIn, groupSet);
  }

  /** The same but for the group set whose groups do it. */
  public Grading withGroupSet(Optional<String> to) {
    return new Grading(points, category, rubric, attempts, weight, minutes, handIn, to);
  }

  /** The same but for its share of the whole grade. */
  public Grading withWeight(Optional<BigDecimal> to) {
    return new Grading(points, category, rubric, attempts, to, minutes, handIn, groupSet);
  }

  /** Graded with these points and nothing else. */
  public static Grading points(BigDecimal points) {
    return NONE.withPoints(Optional.of(points));
  }

  /**
   * A number of points or percent: from 0 to 100,000 with at most six places after the point; none
   * for anything else, so that no text can be the digits of an endless number.
   */
  public static Optional<BigDecimal> number(String text) {
    String t = text.strip();
    if (t.isEmpty() || t.length() > 40) {
      return Optional.empty();
    }
    try {
      BigDecimal n = new BigDecimal(t);
      return inRange(n) ? Optional.of(n) : Optional.empty();
    } catch (NumberFormatException e) {
      return Optional.empty();
    }
  }

  private static boolean inRange(BigDecimal n) {
    BigDecimal s = n.stripTrailingZeros();
    return s.signum() >= 0
        && s.scale() <= 6
        && s.precision() - s.scale() <= 6
        && n.compareTo(MOST) <= 0;
  }

  /** 10.0 and 10 are one value. */
  static BigDecimal plain(BigDecimal n) {
    if (!inRange(n)) {
      throw new IllegalArgumentException(
          "A number out of range: " + n.precision() + " digits, scale " + n.scale());
    }
    BigDecimal s = n.stripTrailingZeros();
    return s.scale() < 0 ? s.setScale(0) : s;
  }
}
