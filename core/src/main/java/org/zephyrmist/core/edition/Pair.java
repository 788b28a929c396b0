package org.zephyrmist.core.edition;

import org.zephyrmist.core.content.ItemKey;

/**
 * An item of an older edition and the one that it became.
 *
 * @param certainty whether a person should look at it
 */
public record Pair(ItemKey older, ItemKey newer, Evidence evidence, Certainty certainty) {
  /** How sure a pair is. */
  public enum Certainty {
    /** Taken without asking. */
    SURE,
    /** Likely, but something else is likely too, or little is alike: asked. */
    DOUBTFUL,
    /** A person said so. */
    DECIDED
  }
}
