package org.zephyrmist.core.edition;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * What the items of the edition that a master is built on are called in the master. Editions may
 * rename, exchange or use their identifiers again; the master's keys last through all of them.
 *
 * @param keys of the master by keys of the edition; what is not named has the same in both
 */
public record Lineage(Map<ItemKey, ItemKey> keys) {
  /** Of a master that was made from this very edition. */
  public static final Lineage FIRST = new Lineage(Map.of());

  public Lineage {
    keys = Map.copyOf(keys);
  }

  /** Of a master that is built on a newer edition from now on. */
  public static Lineage after(Tree newer, Keys keys) {
    Map<ItemKey, ItemKey> all = new HashMap<>();
    for (Node n : newer.nodes()) {
      if (!keys.of(n.key()).equals(n.key())) {
        all.put(n.key(), keys.of(n.key()));
      }
    }
    return new Lineage(all);
  }

  /** The key in the master of an item of the edition. */
  public ItemKey of(ItemKey edition) {
    return keys.getOrDefault(edition, edition);
  }

  /** The key in the edition of an item that has this one in the master. */
  public ItemKey inEdition(ItemKey master) {
    return keys.entrySet().stream()
        .filter(e -> e.getValue().equals(master))
        .map(Map.Entry::getKey)
        .findFirst()
        .orElse(master);
  }

  /** The edition in the master's keys; what its items say is as it was. */
  public Tree of(Tree edition) {
    if (keys.isEmpty()) {
      return edition;
    }
    List<Node> all = new ArrayList<>();
    for (Node n : edition.nodes()) {
      all.add(
          new Node(
              of(n.key()),
              n.kind(),
              n.title(),
              n.parent().map(this::of),
              n.rank(),
              n.rule(),
              n.visibility(),
              n.appliesTo(),
              n.aspects()));
    }
    return Tree.of(all);
  }

  /** A pairing of the edition with a newer one, its older side in the master's keys. */
  public Pairing of(Pairing pairing) {
    return keys.isEmpty()
        ? pairing
        : new Pairing(
            pairing.pairs().stream()
                .map(p -> new Pair(of(p.older()), p.newer(), p.evidence(), p.certainty()))
                .toList(),
            pairing.gone().stream().map(this::of).toList(),
            pairing.fresh());
  }
}
