package org.zephyrmist.core.delivery;

import java.util.Optional;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;

/**
 * An item of the version to be delivered.
 *
 * @param parent the module it stands in; none at the top
 */
public record Meant(
    ItemKey key,
    Kind kind,
    String title,
    EditRule rule,
    Optional<ItemKey> parent,
    Fingerprints aspects) {}
