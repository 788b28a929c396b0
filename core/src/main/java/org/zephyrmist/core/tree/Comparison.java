package org.zephyrmist.core.tree;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;

/** Compares two trees by fingerprints alone. */
public final class Comparison {
  private Comparison() {}

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
   * @param rule whether the edit rule, or for whom it is meant, differs
   */
  public record Change(
      ItemKey key,
      Kind kind,
      String title,
      String before,
      How how,
      Set<Aspect> aspects,
      boolean rule) {}

  /**
   * Differences in the order of the newer tree, then what is gone in the order of the older. An
   * item of which nothing but the place differs is moved; one that differs otherwise is changed.
   */
  public static List<Change> of(Tree older, Tree newer) {
    return Walk.through(newer, older).stream()
        .flatMap(met -> change(met.in().get(1), met.in().get(0)).stream())
        .toList();
  }

  private static Optional<Change> change(Optional<Node> before, Optional<Node> after) {
    Node n = after.or(() -> before).orElseThrow();
    Node o = before.orElse(n);
    if (before.isEmpty() || after.isEmpty()) {
      How how = before.isEmpty() ? How.ADDED : How.GONE;
      return Optional.of(new Change(n.key(), n.kind(), n.title(), n.title(), how, Set.of(), false));
    }
    Set<Aspect> differing = new TreeSet<>(n.aspects().differing(o.aspects()));
    boolean rule = n.rule() != o.rule() || !n.appliesTo().equals(o.appliesTo());
    if (differing.isEmpty() && !rule) {
      return Optional.empty();
    }
    How how = !rule && differing.equals(Set.of(Aspect.PLACE)) ? How.MOVED : How.CHANGED;
    return Optional.of(new Change(n.key(), n.kind(), n.title(), o.title(), how, differing, rule));
  }
}
