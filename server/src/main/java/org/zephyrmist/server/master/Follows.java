package org.zephyrmist.server.master;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.calendar.Circles;
import org.zephyrmist.core.calendar.DatedTree;
import org.zephyrmist.core.calendar.Undated;
import org.zephyrmist.core.content.DatePattern;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.TimingPattern;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.web.Refusal;

/** Dates of a draft that follow those of other items. */
@Component
class Follows {
  private final Trees trees;
  private final Bodies bodies;

  Follows(Trees trees, Bodies bodies) {
    this.trees = trees;
    this.bodies = bodies;
  }

  /** Refuses what would follow nothing, or come back to itself. */
  void check(UUID tree, Item changed) {
    List<ItemKey> followed =
        java.util.Arrays.stream(Point.values())
            .flatMap(p -> changed.timing().patterns().at(p).stream())
            .flatMap(
                w ->
                    w.pattern() instanceof DatePattern.Beside b
                        ? List.of(b.item()).stream()
                        : java.util.stream.Stream.empty())
            .toList();
    if (followed.isEmpty()) {
      return;
    }
    Tree draft = trees.tree(tree);
    for (ItemKey k : followed) {
      if (draft.get(k).isEmpty()) {
        throw Refusal.bad(
            "The date follows an item that is not in this master: " + k + ".",
            "Choose one of its items, or say the day otherwise.");
      }
    }
    Map<ItemKey, TimingPattern> all = new HashMap<>();
    for (Undated u : DatedTree.undated(draft, bodies.get(DatedTree.timings(draft)))) {
      all.put(u.key(), u.timing().patterns());
    }
    all.put(changed.key(), changed.timing().patterns());
    Optional<List<ItemKey>> circle = Circles.of(all, changed.key());
    if (circle.isPresent()) {
      throw Refusal.bad(
          "These dates would follow each other in a circle: "
              + circle.get().stream()
                  .map(k -> "“" + draft.get(k).map(Node::title).orElse("") + "”")
                  .collect(Collectors.joining(", "))
              + ".",
          "Say the day of one of them otherwise.");
    }
  }
}
