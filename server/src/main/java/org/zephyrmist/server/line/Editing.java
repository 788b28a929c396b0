package org.zephyrmist.server.line;

import java.util.Map;
import java.util.UUID;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.server.ledger.Holding;
import org.zephyrmist.server.shell.Ours;

/**
 * A plan that makes a change in a shell, or takes one back, without a version.
 *
 * @param masters whose the items of its steps are; those of nobody are left out
 * @param again what the platform called items that come again
 * @param tied what the ledger has of those
 */
record Editing(Map<ItemKey, UUID> masters, Map<ItemKey, String> again, Map<ItemKey, Holding> tied) {
  UUID master(ItemKey key) {
    return masters.getOrDefault(key, Ours.NOBODY);
  }
}
