package org.zephyrmist.server.master;

import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.time.format.DateTimeParseException;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Addresses;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.server.content.ItemView;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/**
 * Changes to a draft, item by item. A draft has one writer at a time: each change is made on what
 * the ones before it left, so that changes of different things at once are all kept; a change of
 * what somebody else has changed since it was looked at is refused and says who did what.
 */
@Component
public class Drafts {
  private final Trees trees;
  private final DraftEdits edits;

  Drafts(Trees trees, DraftEdits edits) {
    this.trees = trees;
    this.edits = edits;
  }

  /**
   * What is to change of an item; what is absent stays.
   *
   * @param seen fingerprints of the aspects as the writer has seen them, by aspect; may be empty
   */
  public record Change(
      Optional<String> title,
      Optional<String> html,
      Optional<String> points,
      Optional<String> address,
      Optional<String> due,
      Optional<Boolean> shown,
      Optional<EditRule> rule,
      Map<Aspect, String> seen) {}

  @Transactional
  public void change(MasterRecord master, ItemKey key, Change c, SignedIn who) {
    edits.begin(master);
    UUID tree = master.getDraftTreeId();
    Item i = trees.item(tree, key);
    Item to = changed(i, c);
    Fingerprints now = AspectForms.fingerprints(i);
    for (Aspect a : now.differing(AspectForms.fingerprints(to))) {
      String seen = c.seen().getOrDefault(a, ItemView.print(now, a));
      if (!seen.equals(ItemView.print(now, a))) {
        throw edits.conflict(master, i, "changed the " + a.name().toLowerCase(Locale.ROOT) + " of");
      }
    }
    put(tree, to);
    edits.end(master, key, who);
  }

  private static Item changed(Item i, Change c) {
    Content content = i.content();
    if (c.html().isPresent() || c.points().isPresent() || c.address().isPresent()) {
      content = content(content, c);
    }
    Timing timing =
        c.due()
            .map(d -> new Timing(i.timing().opens(), day(d), i.timing().closes()))
            .orElse(i.timing());
    Visibility v =
        c.shown()
            .map(s -> new Visibility(s, i.visibility().instructorsOnly()))
            .orElse(i.visibility());
    return new Item(
        i.key(),
        c.title().filter(t -> !t.isBlank()).map(Drafts::title).orElse(i.title()),
        content,
        timing,
        i.place(),
        v,
        c.rule().orElse(i.rule()));
  }

  private static String title(String title) {
    if (Titles.clean(title).isEmpty()) {
      throw Refusal.bad("The title shows nothing.", "Write one that people can read.");
    }
    return title;
  }

  private static Content content(Content old, Change c) {
    String html = c.html().orElse(AspectForms.html(old));
    Grading grading =
        c.points()
            .map(p -> AspectForms.grading(old).withPoints(points(p)))
            .orElse(AspectForms.grading(old));
    if (old instanceof Content.Page) {
      return new Content.Page(html);
    }
    if (old instanceof Content.Assignment) {
      return new Content.Assignment(html, grading);
    }
    if (old instanceof Content.Discussion) {
      return new Content.Discussion(html);
    }
    if (old instanceof Content.Announcement) {
      return new Content.Announcement(html);
    }
    if (old instanceof Content.Quiz q) {
      return new Content.Quiz(html, q.questions(), q.count(), grading);
    }
    if (old instanceof Content.WebLink w) {
      return new Content.WebLink(c.address().map(Drafts::link).orElse(w.address()), w.newWindow());
    }
    if (old instanceof Content.ToolLink t) {
      return new Content.ToolLink(
          html, c.address().map(Drafts::launch).orElse(t.address()), t.parameters());
    }
    throw Refusal.bad("This kind of item has no text here.", "Change its title instead.");
  }

  private static Optional<BigDecimal> points(String points) {
    if (points.isBlank()) {
      return Optional.empty();
    }
    Optional<BigDecimal> n = Grading.number(points);
    if (n.isEmpty()) {
      throw Refusal.bad("Points are a number from 0 to 100,000.", "Write for instance 10 or 2.5.");
    }
    return n;
  }

  private static String link(String address) {
    if (!Addresses.isPlain(address)) {
      throw Refusal.bad("A link needs an address.", "Write one that begins with https://.");
    }
    return address;
  }

  private static String launch(String address) {
    if (!Addresses.isWeb(address)) {
      throw Refusal.bad(
          "A tool is launched at an address of the web.", "Write one that begins with https://.");
    }
    return address;
  }

  /** A local date and time, ISO 8601, within two centuries. */
  private static Optional<String> day(String text) {
    if (text.isBlank()) {
      return Optional.empty();
    }
    try {
      LocalDateTime at = LocalDateTime.parse(text.strip());
      if (at.getYear() >= 1900 && at.getYear() <= 2200) {
        return Optional.of(text.strip());
      }
    } catch (DateTimeParseException e) {
      // told below
    }
    throw Refusal.bad("This is no day and time.", "Write for instance 2026-10-05T18:00.");
  }

  /**
   * Moves an item.
   *
   * @param parent module it goes into; none for the top
   * @param before sibling it goes before; none for the end
   */
  @Transactional
  public void move(
      MasterRecord master,
      ItemKey key,
      Optional<ItemKey> parent,
      Optional<ItemKey> before,
      SignedIn who) {
    edits.begin(master);
    UUID tree = master.getDraftTreeId();
    List<Trees.Node> nodes = trees.nodes(tree);
    parent.ifPresent(p -> mayHold(nodes, p, key));
    Item i = trees.item(tree, key);
    put(tree, i.withPlace(place(nodes, key, parent, before)));
    edits.end(master, key, who);
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

  /**
   * @param seen state of the item as the writer has seen it; may be empty
   */
  @Transactional
  public int remove(MasterRecord master, ItemKey key, String seen, SignedIn who) {
    edits.begin(master);
    UUID tree = master.getDraftTreeId();
    Item i = trees.item(tree, key);
    if (!seen.isEmpty() && !seen.equals(ItemView.of(i).state())) {
      throw edits.conflict(master, i, "changed");
    }
    int gone = trees.remove(tree, key);
    edits.end(master, key, who);
    return gone;
  }

  /**
   * A new item at the end of a module, or of the top.
   *
   * @param parent none for the top
   */
  public record Addition(
      Kind kind,
      String title,
      String html,
      String points,
      String address,
      Optional<ItemKey> parent) {}

  @Transactional
  public ItemKey add(MasterRecord master, Addition n, SignedIn who) {
    edits.begin(master);
    UUID tree = master.getDraftTreeId();
    List<Trees.Node> nodes = trees.nodes(tree);
    ItemKey key = ItemKey.fresh();
    n.parent().ifPresent(p -> mayHold(nodes, p, key));
    put(
        tree,
        new Item(
            key,
            title(n.title()),
            content(n),
            Timing.NONE,
            place(nodes, key, n.parent(), Optional.empty()),
            Visibility.SHOWN,
            EditRule.ADAPTABLE));
    edits.end(master, key, who);
    return key;
  }

  private static Content content(Addition n) {
    return switch (n.kind()) {
      case MODULE -> new Content.Module();
      case PAGE -> new Content.Page(n.html());
      case ASSIGNMENT ->
          new Content.Assignment(n.html(), Grading.NONE.withPoints(points(n.points())));
      case DISCUSSION -> new Content.Discussion(n.html());
      case ANNOUNCEMENT -> new Content.Announcement(n.html());
      case WEB_LINK -> new Content.WebLink(link(n.address()), true);
      case TOOL_LINK -> new Content.ToolLink(n.html(), launch(n.address()), new TreeMap<>());
      default ->
          throw Refusal.bad(
              "This kind of item comes with a cartridge.", "Add a page, link or assignment.");
    };
  }

  private void put(UUID tree, Item item) {
    trees.put(tree, List.of(item));
  }
}
