package org.zephyrmist.core.content;

import java.util.Collections;
import java.util.EnumSet;
import java.util.Set;
import java.util.function.Function;

/**
 * One side of an item that is fingerprinted, compared and merged on its own. The order counts: it
 * is that of packed fingerprints, and of the bits of a set.
 */
public enum Aspect {
  /** Title, text, questions, file. */
  WORDING(Aspects::wording),
  /** Points, category, rubric, attempts, weight. */
  GRADING(Aspects::grading),
  /** Open, due and close. */
  TIMING(Aspects::timing),
  /** Module and order within it. */
  PLACE(Aspects::place),
  /** Shown or hidden, and to whom. */
  VISIBILITY(Aspects::visibility),
  /** Where a link leads, and with which parameters. */
  LAUNCH(Aspects::launch);

  /** What is a section's own from the start where an item was not brought by us. */
  public static final Set<Aspect> OF_THE_SECTION =
      Collections.unmodifiableSet(EnumSet.of(PLACE, TIMING, VISIBILITY));

  private final Function<Aspects, Object> value;

  Aspect(Function<Aspects, Object> value) {
    this.value = value;
  }

  Object of(Aspects all) {
    return value.apply(all);
  }

  /** A set as bits, the first aspect the lowest. */
  public static int bits(Set<Aspect> aspects) {
    return aspects.stream().mapToInt(a -> 1 << a.ordinal()).sum();
  }

  /** The set that has these bits. */
  public static Set<Aspect> set(int bits) {
    if (bits == 0) {
      return EnumSet.noneOf(Aspect.class);
    }
    EnumSet<Aspect> all = EnumSet.allOf(Aspect.class);
    all.removeIf(a -> (bits & 1 << a.ordinal()) == 0);
    return all;
  }
}
