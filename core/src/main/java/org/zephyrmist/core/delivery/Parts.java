package org.zephyrmist.core.delivery;

import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.ItemKey;

/**
 * The parts of a version that a delivery is about. What is not among them is left as it is.
 *
 * @param keys of the chosen items; none if the whole version is meant
 */
public record Parts(Optional<Set<ItemKey>> keys) {
  public static final Parts EVERYTHING = new Parts(Optional.empty());

  public static Parts only(Set<ItemKey> keys) {
    return new Parts(Optional.of(Set.copyOf(keys)));
  }

  public boolean include(ItemKey key) {
    return keys.map(k -> k.contains(key)).orElse(true);
  }
}
