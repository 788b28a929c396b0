package org.zephyrmist.core.edition;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * Who put what elsewhere, of an older and a newer edition and a master. Where items stand is told
 * by what they stand in and among, not by rank: ranks differ as soon as something is taken.
 */
final class Moved {
  private final Tree newer;
  private final Tree master;
  private final Keys keys;
  private final Set<ItemKey> theirs;
  private final Set<ItemKey> ours;
  private final Map<ItemKey, Integer> order = new HashMap<>();

  Moved(Tree older, Tree newer, Tree master, Pairing pairing, Keys keys) {
    this.newer = newer;
    this.master = master;
    this.keys = keys;
    Map<ItemKey, ItemKey> same = new HashMap<>();
    master
        .nodes()
        .forEach(
            m -> {
              same.put(m.key(), m.key());
              order.put(m.key(), order.size());
            });
    theirs = Moves.of(older, newer, pairing);
    ours = Moves.of(older, master, same);
  }

  /**
   * @param key in the newer edition
   */
  boolean theirsMoved(ItemKey key) {
    return theirs.contains(key);
  }

  /**
   * @param key in the master
   */
  boolean oursMoved(ItemKey key) {
    return ours.contains(key);
  }

  /**
   * Whether an item stands in the master as in the newer edition, among those that neither side
   * moved.
   *
   * @param key in the master
   */
  boolean inPlace(Node n, ItemKey key) {
    Optional<ItemKey> module = n.parent().map(keys::of);
    if (!master.get(key).orElseThrow().parent().equals(module)) {
      return false;
    }
    boolean before = true;
    for (Node sibling : newer.in(n.parent())) {
      ItemKey other = keys.of(sibling.key());
      if (other.equals(key)) {
        before = false;
      } else if (stays(sibling, other, module) && before != (order.get(other) < order.get(key))) {
        return false;
      }
    }
    return true;
  }

  private boolean stays(Node sibling, ItemKey key, Optional<ItemKey> module) {
    return !theirs.contains(sibling.key())
        && !ours.contains(key)
        && master.get(key).filter(m -> m.parent().equals(module)).isPresent();
  }
}
