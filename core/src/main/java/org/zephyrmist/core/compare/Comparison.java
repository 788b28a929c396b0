package org.zephyrmist.core.compare;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;

/** Compares two trees by fingerprints alone. */
public final class Comparison {
  private Comparison() {}

  /** A node of a tree. */
  public record Node(ItemKey key, Kind kind, String title, Fingerprints aspects) {}

  /** How an item differs. */
  public enum How {
    ADDED,
    GONE,
    MOVED,
    CHANGED
  }

  /**
   * One difference.
   *
   * @param aspects those that differ; empty for added and gone
   * @param before the title before, equal to the title if it did not change
   */
  public record Change(
      ItemKey key, Kind kind, String title, String before, How how, Set<Aspect> aspects) {}

  /**
   * Differences in the order of the newer tree, then what is gone in the order of the older. An
   * item of which nothing but the place differs is moved; one that differs otherwise is changed.
   */
  public static List<Change> of(List<Node> older, List<Node> newer) {
    Map<ItemKey, Node> before = new HashMap<>();
    older.forEach(n -> before.put(n.key(), n));
    List<Change> changes = new ArrayList<>();
    for (Node n : newer) {
      Node o = before.remove(n.key());
      if (o == null) {
        changes.add(new Change(n.key(), n.kind(), n.title(), n.title(), How.ADDED, Set.of()));
      } else if (!o.aspects().equals(n.aspects())) {
        Set<Aspect> differing = new TreeSet<>(n.aspects().differing(o.aspects()));
        How how = differing.equals(Set.of(Aspect.PLACE)) ? How.MOVED : How.CHANGED;
        changes.add(new Change(n.key(), n.kind(), n.title(), o.title(), how, differing));
      }
    }
    for (Node o : older) {
      if (before.containsKey(o.key())) {
        changes.add(new Change(o.key(), o.kind(), o.title(), o.title(), How.GONE, Set.of()));
      }
    }
    return changes;
  }
}
