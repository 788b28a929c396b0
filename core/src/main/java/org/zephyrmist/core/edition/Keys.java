package org.zephyrmist.core.edition;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/** Under which key of a master an item of a newer edition stands, or would stand. */
public final class Keys {
  private final Map<ItemKey, ItemKey> toMaster;

  private Keys(Map<ItemKey, ItemKey> toMaster) {
    this.toMaster = toMaster;
  }

  /**
   * Paired items have the key that they always had. A new one keeps its own, unless that means
   * something else already.
   *
   * @param taken keys of what the master has from the newer edition already
   * @param edition tells keys apart that two editions use for different things
   */
  public static Keys of(
      Tree older, Tree newer, Tree master, Pairing pairing, Set<ItemKey> taken, String edition) {
    Map<ItemKey, ItemKey> all = new HashMap<>();
    pairing.pairs().forEach(p -> all.put(p.newer(), p.older()));
    Set<ItemKey> used = new HashSet<>(all.values());
    older.nodes().forEach(n -> used.add(n.key()));
    master.nodes().forEach(n -> used.add(n.key()));
    used.removeAll(taken);
    for (Node n : newer.nodes()) {
      if (!all.containsKey(n.key())) {
        boolean other = used.contains(n.key());
        all.put(n.key(), other ? ItemKey.named(edition + "\n" + n.key()) : n.key());
      }
    }
    return new Keys(all);
  }

  public ItemKey of(ItemKey newer) {
    return toMaster.getOrDefault(newer, newer);
  }

  /** Whether no item changes its key. */
  public boolean same() {
    return toMaster.entrySet().stream().allMatch(e -> e.getKey().equals(e.getValue()));
  }

  Optional<ItemKey> of(Optional<ItemKey> newer) {
    return newer.map(this::of);
  }
}
