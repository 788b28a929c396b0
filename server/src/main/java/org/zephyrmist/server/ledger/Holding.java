package org.zephyrmist.server.ledger;

import java.util.Optional;
import java.util.UUID;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.delivery.Base;

/**
 * An item of a master in a section, by its last receipt.
 *
 * @param here as the shell showed it when it was last read; none if it had gone
 */
public record Holding(UUID master, Base base, Optional<Fingerprints> here) {
  /** The platform's id of the item. */
  public String platformItem() {
    return base.id();
  }

  /** Where it stands compared with what was delivered. */
  public State state() {
    return here.map(h -> h.equals(base.shown()) ? State.AS_DELIVERED : State.CHANGED)
        .orElse(State.GONE);
  }

  /** Whether the section still has it as it was delivered. */
  public enum State {
    AS_DELIVERED,
    CHANGED,
    GONE
  }
}
