package org.zephyrmist.core.check;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * What a master is limited to.
 *
 * @param most how many of each kind it may hold at most; 0 means any number. A kind that is not
 *     named is refused, but modules never are. Without any kind, nothing is refused.
 */
public record Guard(SortedMap<Kind, Integer> most) {
  public static final Guard NONE = new Guard(new TreeMap<>());

  public Guard {
    if (most.values().stream().anyMatch(n -> n < 0)) {
      throw new IllegalArgumentException("A guard counts from 0");
    }
    most = java.util.Collections.unmodifiableSortedMap(new TreeMap<>(most));
  }

  /** The items that are too many or of another kind, in outline order. */
  public List<Node> refuses(Tree tree) {
    List<Node> refused = new ArrayList<>();
    Map<Kind, Integer> seen = new EnumMap<>(Kind.class);
    for (Node n : tree.nodes()) {
      if (most.isEmpty() || n.kind() == Kind.MODULE) {
        continue;
      }
      int count = seen.merge(n.kind(), 1, Integer::sum);
      Integer allowed = most.get(n.kind());
      if (allowed == null || allowed > 0 && count > allowed) {
        refused.add(n);
      }
    }
    return refused;
  }
}
