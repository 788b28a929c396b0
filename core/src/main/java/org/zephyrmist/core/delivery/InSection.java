package org.zephyrmist.core.delivery;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Marks;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * What the marked texts of a version become in a section: values filled in, builder notes gone, and
 * notes to instructors in an item of their own beside the one they stand in, which students never
 * see.
 *
 * @param tree the version, with the items as they become
 * @param items those that become something else than the version says, or are new
 */
public record InSection(Tree tree, List<Item> items) {

  /**
   * @param marked items of the version whose texts have marks
   * @param values text of a value in this section, by its name
   */
  public static InSection of(
      Tree version, List<Item> marked, Function<String, Optional<String>> values) {
    if (marked.isEmpty()) {
      return new InSection(version, List.of());
    }
    List<Item> items = new ArrayList<>();
    Map<ItemKey, Node> nodes = new LinkedHashMap<>();
    version.nodes().forEach(n -> nodes.put(n.key(), n));
    for (Item i : marked) {
      Node node = version.get(i.key()).orElseThrow();
      Item becomes = filled(i, values);
      items.add(becomes);
      nodes.put(i.key(), node.withAspects(AspectForms.fingerprints(becomes)));
      List<String> notes = Marks.instructorNotes(i.content().html());
      if (!notes.isEmpty()) {
        Item note = note(i, notes, after(version, node), values);
        items.add(note);
        nodes.put(note.key(), Node.of(note, node.appliesTo()));
      }
    }
    return new InSection(Tree.of(nodes.values()), items);
  }

  private static Item filled(Item i, Function<String, Optional<String>> values) {
    Aspects a = Aspects.of(i);
    String html = Marks.filled(a.wording().html(), values);
    return a.with(a.wording().withHtml(html)).item(i.key(), i.kind(), i.rule());
  }

  /** The key of the page with the notes of an item; always the same, so that it is found again. */
  public static ItemKey noteOf(ItemKey item) {
    return ItemKey.named("instructor note\n" + item.value());
  }

  private static Item note(
      Item of, List<String> notes, Place at, Function<String, Optional<String>> values) {
    String html = Marks.filled(String.join("", notes), values);
    return new Item(
        noteOf(of.key()),
        "For instructors: " + of.title(),
        new Content.Page(html),
        Timing.NONE,
        at,
        new Visibility(false, true),
        EditRule.ADAPTABLE);
  }

  private static Place after(Tree version, Node node) {
    List<Node> siblings = version.in(node.parent());
    int next = siblings.indexOf(node) + 1;
    String high = next < siblings.size() ? siblings.get(next).rank() : "";
    String rank = node.rank().equals(high) ? node.rank() : Rank.between(node.rank(), high);
    return new Place(node.parent().map(ItemKey::value), rank);
  }
}
