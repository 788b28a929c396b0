package org.zephyrmist.core.edition;

import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.content.ItemKey;

/** What stands in what, while items are put into places. */
final class Nested {
  private Nested() {}

  /**
   * Whether a module is an item itself, or stands in it.
   *
   * @param parents the module that each item stands in so far; none for the top
   */
  static boolean within(
      Optional<ItemKey> module, ItemKey item, Map<ItemKey, Optional<ItemKey>> parents) {
    Optional<ItemKey> up = module;
    while (up.isPresent()) {
      if (up.get().equals(item)) {
        return true;
      }
      up = parents.getOrDefault(up.get(), Optional.empty());
    }
    return false;
  }
}
