package org.zephyrmist.core.tool;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.tool.RelinkRule.Link;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * A version with links written otherwise for a section.
 *
 * @param items those that become something else
 */
public record RelinkedTree(Tree tree, List<Item> items) {
  /**
   * @param linking items of the tree that may lead somewhere else
   */
  public static RelinkedTree of(Tree tree, List<Item> linking, UnaryOperator<Link> rules) {
    List<Item> items = new ArrayList<>();
    Map<ItemKey, Node> nodes = new LinkedHashMap<>();
    tree.nodes().forEach(n -> nodes.put(n.key(), n));
    for (Item i : linking) {
      Aspects before = Aspects.of(i);
      Aspects after = ToolLinks.relinked(before, rules);
      if (!after.equals(before)) {
        Item becomes = after.item(i.key(), i.kind(), i.rule());
        items.add(becomes);
        nodes.computeIfPresent(i.key(), (k, n) -> n.withAspects(AspectForms.fingerprints(becomes)));
      }
    }
    return items.isEmpty()
        ? new RelinkedTree(tree, List.of())
        : new RelinkedTree(Tree.of(nodes.values()), items);
  }
}
