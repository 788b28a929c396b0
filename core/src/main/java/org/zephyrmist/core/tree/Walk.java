package org.zephyrmist.core.tree;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.ItemKey;

/** Several trees walked at once. */
public final class Walk {
  private Walk() {}

  /**
   * An item that at least one of the trees has.
   *
   * @param in the item in each of the trees, in the order of the trees
   */
  public record Met(ItemKey key, List<Optional<Node>> in) {
    public Met {
      in = List.copyOf(in);
    }
  }

  /**
   * Every item of any of the trees once: in the outline order of the first tree, then what only the
   * others have, in theirs.
   */
  public static List<Met> through(Tree... trees) {
    Set<ItemKey> keys = new LinkedHashSet<>();
    for (Tree t : trees) {
      t.nodes().forEach(n -> keys.add(n.key()));
    }
    List<Met> all = new ArrayList<>(keys.size());
    for (ItemKey k : keys) {
      List<Optional<Node>> in = new ArrayList<>(trees.length);
      for (Tree t : trees) {
        in.add(t.get(k));
      }
      all.add(new Met(k, in));
    }
    return all;
  }
}
