package org.zephyrmist.server.master;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import java.util.function.BiFunction;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Launch;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.tree.NoSuchPlace;
import org.zephyrmist.core.tree.Tree;
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
  private final Edits changes;
  private final DraftQuestions questions;
  private final Follows follows;

  Drafts(Trees trees, DraftEdits edits, Edits changes, DraftQuestions questions, Follows follows) {
    this.follows = follows;
    this.trees = trees;
    this.edits = edits;
    this.changes = changes;
    this.questions = questions;
  }

  @Transactional
  public void change(MasterRecord master, ItemKey key, ItemChange c, SignedIn who) {
    edits.begin(master);
    UUID tree = master.getDraftTreeId();
    Item i = trees.item(tree, key);
    Item to = changes.changed(i, c);
    unseen(master, i, to, Optional.ofNullable(c.seen()).orElse(Map.of()));
    follows.check(tree, to);
    edits.step(
        master,
        List.of(key),
        "changed “" + to.title() + "”",
        who,
        () -> {
          put(tree, to);
          Optional.ofNullable(c.appliesTo())
              .ifPresent(m -> trees.appliesTo(tree, List.of(key), applies(m)));
        });
  }

  private static AppliesTo applies(ItemChange.Meets m) {
    return m.nobody() ? AppliesTo.NOBODY : new AppliesTo(m.campuses(), m.modes(), m.tags());
  }

  /** Refuses where somebody changed an aspect that is to change, after the writer looked at it. */
  private void unseen(MasterRecord master, Item i, Item to, Map<Aspect, String> seen) {
    Fingerprints now = AspectForms.fingerprints(i);
    for (Aspect a : now.differing(AspectForms.fingerprints(to))) {
      if (!seen.getOrDefault(a, ItemView.print(now, a)).equals(ItemView.print(now, a))) {
        throw edits.conflict(master, i, "changed the " + a.name().toLowerCase(Locale.ROOT) + " of");
      }
    }
  }

  /**
   * Writes items otherwise, as one step that can be undone.
   *
   * @param what was done, before how many items it was
   * @return how many items became something else
   */
  @Transactional
  public int rewrite(
      MasterRecord master, String what, UnaryOperator<Aspects> rewritten, SignedIn who) {
    return rewrite(master, what, (key, aspects) -> rewritten.apply(aspects), who);
  }

  /** The same, where it matters which item it is. */
  @Transactional
  public int rewrite(
      MasterRecord master,
      String what,
      BiFunction<ItemKey, Aspects, Aspects> rewritten,
      SignedIn who) {
    edits.begin(master);
    UUID tree = master.getDraftTreeId();
    List<Item> changed = new ArrayList<>();
    for (Item i : trees.items(trees.tree(tree).nodes())) {
      Aspects before = Aspects.of(i);
      Aspects after = rewritten.apply(i.key(), before);
      if (!after.equals(before)) {
        changed.add(after.item(i.key(), i.kind(), i.rule()));
      }
    }
    if (!changed.isEmpty()) {
      List<ItemKey> keys = changed.stream().map(Item::key).toList();
      edits.step(master, keys, what + " in " + named(changed), who, () -> trees.put(tree, changed));
    }
    return changed.size();
  }

  /** Puts other questions into a quiz or a bank. */
  @Transactional
  public void questions(MasterRecord master, ItemKey key, DraftQuestions.Written w, SignedIn who) {
    edits.begin(master);
    Item i = trees.item(master.getDraftTreeId(), key);
    Item to = questions.written(i, w);
    unseen(master, i, to, w.seen().map(s -> Map.of(Aspect.WORDING, s)).orElse(Map.of()));
    edits.step(
        master,
        List.of(key),
        "changed the questions of “" + i.title() + "”",
        who,
        () -> put(master.getDraftTreeId(), to));
  }

  /** Ties items to each other, or unties them; a tie of one is none. */
  @Transactional
  public void tie(MasterRecord master, List<ItemKey> keys, boolean together, SignedIn who) {
    edits.begin(master);
    UUID tree = master.getDraftTreeId();
    List<Item> items = trees.items(trees.nodes(tree, keys));
    if (together && items.size() < 2) {
      throw Refusal.bad("One item goes with nothing.", "Choose two or more.");
    }
    Map<ItemKey, String> ties = trees.ties(tree);
    Set<ItemKey> all = new LinkedHashSet<>(keys);
    Set<ItemKey> alone = new LinkedHashSet<>();
    for (ItemKey k : keys) {
      List<ItemKey> others =
          ties.entrySet().stream()
              .filter(e -> e.getValue().equals(ties.get(k)) && !keys.contains(e.getKey()))
              .map(Map.Entry::getKey)
              .toList();
      if (together) {
        all.addAll(others);
      } else if (others.size() == 1) {
        alone.addAll(others);
      }
    }
    all.addAll(alone);
    edits.step(
        master,
        all,
        (together ? "tied " : "untied ") + named(items),
        who,
        () ->
            trees.tie(
                tree,
                all,
                together ? Optional.of(UUID.randomUUID().toString()) : Optional.empty()));
  }

  /**
   * Moves items, one after the other in their order.
   *
   * @param parent module they go into; none for the top
   * @param before sibling they go before; none for the end
   */
  @Transactional
  public void move(
      MasterRecord master,
      List<ItemKey> keys,
      Optional<ItemKey> parent,
      Optional<ItemKey> before,
      SignedIn who) {
    edits.begin(master);
    UUID tree = master.getDraftTreeId();
    List<Item> items = trees.items(trees.nodes(tree, keys));
    edits.step(
        master,
        keys,
        "moved " + named(items),
        who,
        () -> items.forEach(i -> put(tree, i.withPlace(place(tree, i.key(), parent, before)))));
  }

  private static String named(List<Item> items) {
    String first = "“" + items.get(0).title() + "”";
    return items.size() == 1 ? first : first + " and " + (items.size() - 1) + " more";
  }

  private Place place(UUID tree, ItemKey key, Optional<ItemKey> parent, Optional<ItemKey> before) {
    try {
      return trees.tree(tree).place(key, parent, before);
    } catch (NoSuchPlace e) {
      throw switch (e.why()) {
        case INTO_ITSELF -> Refusal.bad("A module cannot go into itself.", "Choose another place.");
        case NOT_A_MODULE -> Refusal.bad("Only a module can hold items.", "Choose a module.");
        case NO_SUCH_MODULE -> Refusal.notFound("module");
        case NO_SUCH_NEIGHBOUR -> Refusal.notFound("neighbour");
      };
    }
  }

  /**
   * Takes items out, and all below them.
   *
   * @param seen state of the item as the writer has seen it, where it is one; may be empty
   */
  @Transactional
  public int remove(MasterRecord master, List<ItemKey> keys, String seen, SignedIn who) {
    edits.begin(master);
    UUID tree = master.getDraftTreeId();
    Tree all = trees.tree(tree);
    List<Item> items =
        trees.items(
            keys.stream()
                .map(k -> all.get(k).orElseThrow(() -> Refusal.notFound("item")))
                .toList());
    if (!seen.isEmpty() && !seen.equals(ItemView.of(items.get(0)).state())) {
      throw edits.conflict(master, items.get(0), "changed");
    }
    Set<ItemKey> gone = new LinkedHashSet<>();
    keys.forEach(k -> all.subtree(k).forEach(n -> gone.add(n.key())));
    edits.step(master, gone, "took out " + named(items), who, () -> trees.remove(tree, gone));
    return gone.size();
  }

  /** Makes the draft what a version is, as a step that can be undone. */
  @Transactional
  public void restore(MasterRecord master, UUID version, int number, SignedIn who) {
    edits.begin(master);
    UUID tree = master.getDraftTreeId();
    Set<ItemKey> all = new LinkedHashSet<>();
    trees.tree(tree).nodes().forEach(n -> all.add(n.key()));
    trees.tree(version).nodes().forEach(n -> all.add(n.key()));
    edits.step(master, all, "restored version " + number, who, () -> trees.replace(tree, version));
  }

  /**
   * A new item at the end of a module, or of the top.
   *
   * @param file of a file
   * @param parent none for the top
   * @param before sibling it goes before; none for the end
   */
  public record Addition(
      Kind kind,
      String title,
      String html,
      String points,
      String address,
      Optional<ItemChange.Named> file,
      Optional<ItemKey> parent,
      Optional<ItemKey> before) {}

  @Transactional
  public ItemKey add(MasterRecord master, Addition n, SignedIn who) {
    edits.begin(master);
    UUID tree = master.getDraftTreeId();
    ItemKey key = ItemKey.fresh();
    Place place = place(tree, key, n.parent(), n.before());
    Item item = added(key, n, place).item(key, n.kind(), EditRule.ADAPTABLE);
    edits.step(master, List.of(key), "added “" + item.title() + "”", who, () -> put(tree, item));
    return key;
  }

  /** Something that came ready-made from elsewhere. */
  public record Made(String title, Content content) {}

  /**
   * Several new items, one after the other at the end of a module, or of the top.
   *
   * @param parent none for the top
   */
  @Transactional
  public List<ItemKey> add(
      MasterRecord master, List<Made> made, Optional<ItemKey> parent, SignedIn who) {
    edits.begin(master);
    UUID tree = master.getDraftTreeId();
    List<Item> items = new ArrayList<>();
    Place at = place(tree, ItemKey.fresh(), parent, Optional.empty());
    for (Made m : made) {
      items.add(
          new Item(
              ItemKey.fresh(),
              Entries.title(m.title()),
              m.content(),
              Timing.NONE,
              at,
              Visibility.SHOWN,
              EditRule.ADAPTABLE));
      at = new Place(at.parent(), Rank.between(at.rank(), ""));
    }
    List<ItemKey> keys = items.stream().map(Item::key).toList();
    edits.step(master, keys, "added " + named(items), who, () -> trees.put(tree, items));
    return keys;
  }

  private Aspects added(ItemKey key, Addition n, Place place) {
    Launch launch =
        n.kind().leads()
            ? new Launch(Entries.address(n.kind(), n.address()), true, new TreeMap<>())
            : Launch.NOWHERE;
    Wording wording = Wording.of(Entries.title(n.title()), n.html());
    if (n.kind() == Kind.FILE) {
      wording =
          wording.withFile(
              Optional.of(
                  changes.kept(
                      n.file()
                          .orElseThrow(
                              () -> Refusal.bad("There is no file.", "Send the file first.")))));
    } else if (n.kind().fields().contains(Kind.Field.QUESTIONS)) {
      wording = wording.withQuestions(questions.none(key, n.kind()), 0, List.of());
    }
    return new Aspects(
        wording,
        Grading.NONE.withPoints(Entries.points(n.points())),
        Timing.NONE,
        place,
        Visibility.SHOWN,
        launch);
  }

  private void put(UUID tree, Item item) {
    trees.put(tree, List.of(item));
  }
}
