package org.zephyrmist.server.master;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.web.Refusal;

/** Changes to a draft, item by item. */
@Component
public class Drafts {
  private final Trees trees;

  Drafts(Trees trees) {
    this.trees = trees;
  }

  /** What is to change of an item; what is absent stays. */
  public record Change(
      Optional<String> title,
      Optional<String> html,
      Optional<String> points,
      Optional<String> address,
      Optional<String> due,
      Optional<Boolean> shown,
      Optional<EditRule> rule) {}

  @Transactional
  public void change(UUID tree, ItemKey key, Change c) {
    Item i = trees.item(tree, key);
    Content content = i.content();
    if (c.html().isPresent() || c.points().isPresent() || c.address().isPresent()) {
      content = content(content, c);
    }
    Timing timing =
        c.due()
            .map(d -> new Timing(i.timing().opens(), optional(d), i.timing().closes()))
            .orElse(i.timing());
    Visibility v =
        c.shown()
            .map(s -> new Visibility(s, i.visibility().instructorsOnly()))
            .orElse(i.visibility());
    put(
        tree,
        new Item(
            key,
            c.title().filter(t -> !t.isBlank()).orElse(i.title()),
            content,
            timing,
            i.place(),
            v,
            c.rule().orElse(i.rule())));
  }

  private static Content content(Content old, Change c) {
    String html = c.html().orElse(AspectForms.html(old));
    Grading grading = c.points().map(Drafts::grading).orElse(AspectForms.grading(old));
    if (old instanceof Content.Page) {
      return new Content.Page(html);
    }
    if (old instanceof Content.Assignment) {
      return new Content.Assignment(html, grading);
    }
    if (old instanceof Content.Discussion) {
      return new Content.Discussion(html);
    }
    if (old instanceof Content.Quiz q) {
      return new Content.Quiz(html, q.questions(), q.count(), grading);
    }
    if (old instanceof Content.WebLink w) {
      return new Content.WebLink(c.address().orElse(w.address()), w.newWindow());
    }
    if (old instanceof Content.ToolLink t) {
      return new Content.ToolLink(html, c.address().orElse(t.address()), t.parameters());
    }
    throw Refusal.bad("This kind of item has no text here.", "Change its title instead.");
  }

  private static Grading grading(String points) {
    if (points.isBlank()) {
      return Grading.NONE;
    }
    try {
      BigDecimal n = new BigDecimal(points.strip());
      if (n.signum() < 0 || n.compareTo(new BigDecimal(100_000)) > 0) {
        throw new NumberFormatException();
      }
      return Grading.points(n);
    } catch (NumberFormatException e) {
      throw Refusal.bad("Points are a number from 0 to 100,000.", "Write for instance 10 or 2.5.");
    }
  }

  private static Optional<String> optional(String text) {
    return text.isBlank() ? Optional.empty() : Optional.of(text.strip());
  }

  /**
   * Moves an item.
   *
   * @param parent module it goes into; none for the top
   * @param before sibling it goes before; none for the end
   */
  @Transactional
  public void move(UUID tree, ItemKey key, Optional<ItemKey> parent, Optional<ItemKey> before) {
    List<Trees.Node> nodes = trees.nodes(tree);
    parent.ifPresent(p -> mayHold(nodes, p, key));
    Item i = trees.item(tree, key);
    put(tree, i.withPlace(place(nodes, key, parent, before)));
  }

  private static void mayHold(List<Trees.Node> nodes, ItemKey parent, ItemKey key) {
    Optional<ItemKey> at = Optional.of(parent);
    while (at.isPresent()) {
      ItemKey here = at.get();
      if (here.equals(key)) {
        throw Refusal.bad("A module cannot go into itself.", "Choose another place.");
      }
      Trees.Node n =
          nodes.stream()
              .filter(x -> x.key().equals(here))
              .findFirst()
              .orElseThrow(() -> Refusal.notFound("module"));
      if (n.kind() != Kind.MODULE) {
        throw Refusal.bad("Only a module can hold items.", "Choose a module.");
      }
      at = n.parent();
    }
  }

  private static Place place(
      List<Trees.Node> nodes, ItemKey key, Optional<ItemKey> parent, Optional<ItemKey> before) {
    List<Trees.Node> siblings =
        nodes.stream().filter(n -> n.parent().equals(parent) && !n.key().equals(key)).toList();
    int at =
        before
            .map(
                b ->
                    IntStream.range(0, siblings.size())
                        .filter(k -> siblings.get(k).key().equals(b))
                        .findFirst()
                        .orElseThrow(() -> Refusal.notFound("neighbour")))
            .orElse(siblings.size());
    String low = at == 0 ? "" : siblings.get(at - 1).rank();
    String high = at == siblings.size() ? "" : siblings.get(at).rank();
    return new Place(parent.map(ItemKey::value), Rank.between(low, high));
  }

  @Transactional
  public int remove(UUID tree, ItemKey key) {
    trees.node(tree, key);
    return trees.remove(tree, key);
  }

  /** A new item at the end of a module, or of the top. */
  @Transactional
  public ItemKey add(
      UUID tree,
      Kind kind,
      String title,
      String html,
      String points,
      String address,
      Optional<ItemKey> parent) {
    List<Trees.Node> nodes = trees.nodes(tree);
    ItemKey key = ItemKey.fresh();
    parent.ifPresent(p -> mayHold(nodes, p, key));
    Content content =
        switch (kind) {
          case MODULE -> new Content.Module();
          case PAGE -> new Content.Page(html);
          case ASSIGNMENT -> new Content.Assignment(html, grading(points));
          case DISCUSSION -> new Content.Discussion(html);
          case ANNOUNCEMENT -> new Content.Announcement(html);
          case WEB_LINK -> new Content.WebLink(address, true);
          case TOOL_LINK -> new Content.ToolLink(html, address, new TreeMap<>());
          default ->
              throw Refusal.bad(
                  "This kind of item comes with a cartridge.", "Add a page, link or assignment.");
        };
    put(
        tree,
        new Item(
            key,
            title,
            content,
            Timing.NONE,
            place(nodes, key, parent, Optional.empty()),
            Visibility.SHOWN,
            EditRule.ADAPTABLE));
    return key;
  }

  private void put(UUID tree, Item item) {
    trees.put(tree, List.of(item));
  }
}
