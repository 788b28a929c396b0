package org.zephyrmist.core.content;

import java.util.Optional;

/**
 * Where an item stands.
 *
 * @param parent key of the module that holds it; none at the top
 * @param rank order among its siblings, see {@link Rank}
 */
public record Place(Optional<String> parent, String rank) {}
