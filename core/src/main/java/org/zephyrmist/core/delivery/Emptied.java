package org.zephyrmist.core.delivery;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Predicate;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;

/**
 * A shell from which all or nearly all of ours is gone was emptied, or is another one now: that is
 * something else than an instructor who took items out.
 */
public final class Emptied {
  /** Of fewer items it cannot be told. */
  private static final int LEAST = 3;

  /** Nearly all: so many of ten. */
  private static final int OF_TEN = 9;

  private Emptied() {}

  /**
   * @param bases what the section was given of one master
   * @param there whether its shell still has an item
   */
  public static boolean is(Collection<Base> bases, Predicate<Base> there) {
    int given = 0;
    int gone = 0;
    for (Base b : bases) {
      if (b.kind() != Kind.MODULE) {
        given++;
        gone += there.test(b) ? 0 : 1;
      }
    }
    return is(given, gone);
  }

  /**
   * What counts as given: all, or of an emptied shell that is filled anew only what is there.
   *
   * @param emptied judged when the line was first planned: while it is carried out, items go and
   *     come
   */
  public static Map<ItemKey, Base> counting(
      Map<ItemKey, Base> bases, Predicate<Base> there, Choices choices, boolean emptied) {
    if (choices.emptied() != Choices.EmptiedShell.ANEW || !emptied) {
      return bases;
    }
    Map<ItemKey, Base> left = new HashMap<>(bases);
    left.values().removeIf(there.negate());
    return left;
  }

  static boolean is(int given, int gone) {
    return given >= LEAST && gone * 10 >= given * OF_TEN;
  }
}
