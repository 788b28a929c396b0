package org.zephyrmist.core.edition;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * Which items of an edition stand elsewhere in the next one: in another module, or in another order
 * among those that stayed. Where something was put before them, they have not moved.
 */
final class Moves {
  private Moves() {}

  /** Newer keys of those that moved. */
  static Set<ItemKey> of(Tree older, Tree newer, Pairing pairing) {
    Map<ItemKey, ItemKey> before = new HashMap<>();
    pairing.pairs().forEach(p -> before.put(p.newer(), p.older()));
    return of(older, newer, before);
  }

  /**
   * The same of any two trees.
   *
   * @param before by the newer key of an item its older one
   */
  static Set<ItemKey> of(Tree older, Tree newer, Map<ItemKey, ItemKey> before) {
    Map<ItemKey, Integer> order = new HashMap<>();
    for (Node n : older.nodes()) {
      order.put(n.key(), order.size());
    }
    Set<ItemKey> moved = new HashSet<>();
    Map<Optional<ItemKey>, List<ItemKey>> stayed = new HashMap<>();
    for (Node n : newer.nodes()) {
      ItemKey was = before.get(n.key());
      if (was != null && older.has(was)) {
        Optional<ItemKey> from = older.get(was).flatMap(Node::parent);
        if (from.equals(n.parent().map(p -> before.getOrDefault(p, p)))) {
          stayed.computeIfAbsent(n.parent(), p -> new ArrayList<>()).add(n.key());
        } else {
          moved.add(n.key());
        }
      }
    }
    stayed.values().forEach(s -> moved.addAll(outOfOrder(s, k -> order.get(before.get(k)))));
    return moved;
  }

  /** Those outside a longest rising sequence. */
  private static List<ItemKey> outOfOrder(
      List<ItemKey> keys, java.util.function.ToIntFunction<ItemKey> order) {
    int n = keys.size();
    int[] end = new int[n];
    int[] before = new int[n];
    int length = 0;
    for (int i = 0; i < n; i++) {
      int value = order.applyAsInt(keys.get(i));
      int low = 0;
      int high = length;
      while (low < high) {
        int middle = (low + high) / 2;
        if (order.applyAsInt(keys.get(end[middle])) < value) {
          low = middle + 1;
        } else {
          high = middle;
        }
      }
      before[i] = low == 0 ? -1 : end[low - 1];
      end[low] = i;
      length = Math.max(length, low + 1);
    }
    Set<Integer> kept = new HashSet<>();
    for (int i = length == 0 ? -1 : end[length - 1]; i >= 0; i = before[i]) {
      kept.add(i);
    }
    List<ItemKey> out = new ArrayList<>();
    for (int i = 0; i < n; i++) {
      if (!kept.contains(i)) {
        out.add(keys.get(i));
      }
    }
    return out;
  }
}
