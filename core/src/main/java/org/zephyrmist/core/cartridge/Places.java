package org.zephyrmist.core.cartridge;

import java.util.Optional;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;

/** Places one after the other. */
final class Places {
  private final Optional<String> parent;
  private int taken;

  Places(Optional<String> parent) {
    this.parent = parent;
  }

  Place next() {
    return new Place(parent, Rank.nth(taken++));
  }
}
