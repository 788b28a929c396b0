package org.zephyrmist.core.content;

import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.util.Optional;

/**
 * What must be done or be so before an item opens.
 *
 * @param item key of the item it is about, or in a shell what the platform calls it; none for a day
 * @param percent of its points that are needed, of a score
 * @param from the day, in local time
 */
public record Condition(
    What what, Optional<String> item, Optional<BigDecimal> percent, Optional<LocalDateTime> from) {
  /** What is asked. */
  public enum What {
    /** Another item was opened. */
    READ,
    /** Work was handed in on another item. */
    HANDED_IN,
    /** Another item was graded, with so many percent at least. */
    SCORE,
    /** A day has come. */
    DAY
  }

  private static final BigDecimal ALL = new BigDecimal(100);

  public Condition {
    boolean fits =
        item.isPresent() == (what != What.DAY)
            && percent.isPresent() == (what == What.SCORE)
            && from.isPresent() == (what == What.DAY);
    if (!fits) {
      throw new IllegalArgumentException("A condition has what it asks for, and no more");
    }
    percent = percent.map(Grading::plain);
    if (percent.filter(p -> p.compareTo(ALL) > 0).isPresent()) {
      throw new IllegalArgumentException("A score is at most 100 percent");
    }
  }

  public static Condition read(ItemKey item) {
    return new Condition(What.READ, Optional.of(item.value()), Optional.empty(), Optional.empty());
  }

  public static Condition score(ItemKey item, BigDecimal percent) {
    return new Condition(
        What.SCORE, Optional.of(item.value()), Optional.of(percent), Optional.empty());
  }

  /** The same about another item. */
  public Condition about(String to) {
    return new Condition(what, Optional.of(to), percent, from);
  }
}
