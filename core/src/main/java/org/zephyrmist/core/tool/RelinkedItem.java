package org.zephyrmist.core.tool;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.tool.RelinkRule.Link;

/** An item that many sections get with its links written otherwise; each form is made once. */
public final class RelinkedItem {
  private final Item item;
  private final List<Link> links;
  private final Map<List<Link>, Fingerprints> known = new HashMap<>();

  public RelinkedItem(Item item) {
    this.item = item;
    this.links = ToolLinks.in(item, host -> true).stream().map(ToolLinks.Found::link).toList();
  }

  /** What the item becomes by rules. */
  public Fingerprints by(UnaryOperator<Link> rules) {
    return known.computeIfAbsent(links.stream().map(rules).toList(), this::becomes);
  }

  private Fingerprints becomes(List<Link> to) {
    Map<Link, Link> become = new HashMap<>();
    for (int i = 0; i < to.size(); i++) {
      become.put(links.get(i), to.get(i));
    }
    Aspects after = ToolLinks.relinked(Aspects.of(item), link -> become.getOrDefault(link, link));
    return AspectForms.fingerprints(after.item(item.key(), item.kind(), item.rule()));
  }
}
