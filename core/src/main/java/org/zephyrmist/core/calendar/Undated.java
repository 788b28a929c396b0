package org.zephyrmist.core.calendar;

import java.util.Optional;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Timing;

/**
 * An item of a master before it has dates of a section.
 *
 * @param parent the module it stands in
 * @param timing with its patterns
 */
public record Undated(ItemKey key, Kind kind, Optional<ItemKey> parent, Timing timing) {}
