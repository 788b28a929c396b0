package org.zephyrmist.server.master;

import static org.zephyrmist.server.db.Tables.EDITION;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Mentions;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.question.QuestionSet;
import org.zephyrmist.core.tree.NoSuchPlace;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.content.Questions;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Takes single items and modules over into a draft from any source, with what they need. */
@Component
class TakeOver {
  private final DSLContext db;
  private final Masters masters;
  private final Trees trees;
  private final Questions questions;
  private final DraftEdits edits;
  private final Drafts drafts;

  TakeOver(
      DSLContext db,
      Masters masters,
      Trees trees,
      Questions questions,
      DraftEdits edits,
      Drafts drafts) {
    this.drafts = drafts;
    this.db = db;
    this.masters = masters;
    this.trees = trees;
    this.questions = questions;
    this.edits = edits;
  }

  /** Where items are taken from: an edition, or a version of a master. */
  record Source(Optional<UUID> edition, Optional<UUID> master, int version) {}

  /**
   * @param parent module they go into; none for the top
   * @param before sibling they go before; none for the end
   * @param away they are taken out of the draft that they come from, in the same step
   */
  @Transactional
  public DraftApi.Taken take(
      MasterRecord into,
      Source from,
      List<ItemKey> chosen,
      Optional<ItemKey> parent,
      Optional<ItemKey> before,
      boolean away,
      SignedIn who) {
    edits.begin(into);
    UUID source = tree(from, who);
    Tree there = trees.tree(source);
    Tree here = trees.tree(into.getDraftTreeId());
    Set<ItemKey> tops = tops(there, chosen);
    Set<ItemKey> all = new LinkedHashSet<>();
    tops.forEach(k -> there.subtree(k).forEach(n -> all.add(n.key())));
    Set<ItemKey> along = along(there, here, all);
    all.addAll(along);
    Map<ItemKey, ItemKey> keys = keys(all, here);
    List<Item> items = items(there, all, keys);
    List<Item> placed = placed(items, there, keys, tops, along, here, parent, before);
    List<ItemKey> taken = placed.stream().map(Item::key).toList();
    edits.step(
        into,
        taken,
        "took over “" + items.get(0).title() + "”" + (items.size() == 1 ? "" : " and more"),
        who,
        () -> {
          trees.put(into.getDraftTreeId(), placed);
          origins(source, from, into.getDraftTreeId(), keys);
        });
    if (away) {
      away(into, from, tops, who);
    }
    return new DraftApi.Taken(tops.stream().map(k -> keys.get(k).value()).toList(), along.size());
  }

  private void away(MasterRecord into, Source from, Set<ItemKey> tops, SignedIn who) {
    MasterRecord of =
        from.master()
            .filter(m -> from.version() == 0)
            .map(m -> masters.toChange(m, who))
            .orElseThrow(
                () -> Refusal.bad("Only a draft can be cut from.", "Copy the items instead."));
    drafts.remove(of, List.copyOf(tops), "", who);
    edits.together(into, of, who);
  }

  private UUID tree(Source from, SignedIn who) {
    if (from.edition().isPresent() == from.master().isPresent()) {
      throw Refusal.bad(
          "Items are taken from an edition or from a master.", "Name one of the two.");
    }
    if (from.master().isPresent()) {
      return masters.tree(masters.get(from.master().get(), who), from.version());
    }
    return db.select(EDITION.TREE_ID)
        .from(EDITION)
        .where(EDITION.ID.eq(from.edition().get()))
        .fetchOptional(EDITION.TREE_ID)
        .orElseThrow(() -> Refusal.notFound("edition"));
  }

  /** Those that stand in no other chosen one. */
  private static Set<ItemKey> tops(Tree there, List<ItemKey> chosen) {
    Set<ItemKey> wanted = new LinkedHashSet<>(chosen);
    chosen.forEach(k -> there.get(k).orElseThrow(() -> Refusal.notFound("item")));
    return there.nodes().stream()
        .map(Node::key)
        .filter(wanted::contains)
        .filter(k -> there.above(k).stream().noneMatch(m -> wanted.contains(m.key())))
        .collect(Collectors.toCollection(LinkedHashSet::new));
  }

  /** What chosen items need, and what that needs in turn. */
  private Set<ItemKey> along(Tree there, Tree here, Set<ItemKey> chosen) {
    Set<ItemKey> along = new LinkedHashSet<>();
    Set<ItemKey> more = needed(there, here, chosen);
    while (along.addAll(more)) {
      more = needed(there, here, more);
      more.removeAll(chosen);
    }
    return along;
  }

  /** Banks that chosen quizzes draw from, and what chosen items name and cannot do without. */
  private Set<ItemKey> needed(Tree there, Tree here, Set<ItemKey> chosen) {
    Set<ItemKey> needed = new LinkedHashSet<>();
    List<Item> items = trees.items(nodes(there, chosen));
    Map<String, ItemKey> banks = new HashMap<>();
    Set<String> drawn = new LinkedHashSet<>();
    for (QuestionSet set : questions.of(items).values()) {
      set.parts().stream()
          .filter(p -> p instanceof QuestionSet.Group)
          .forEach(p -> ((QuestionSet.Group) p).bank().ifPresent(drawn::add));
    }
    if (!drawn.isEmpty()) {
      List<Node> all = there.nodes().stream().filter(n -> n.kind() == Kind.QUESTION_BANK).toList();
      questions.idents(trees.items(all)).forEach((key, ident) -> banks.putIfAbsent(ident, key));
    }
    drawn.forEach(b -> Optional.ofNullable(banks.get(b)).ifPresent(needed::add));
    for (Item i : items) {
      Mentions.of(i).stream()
          .filter(m -> there.get(m.to()).filter(n -> needed(m.why(), n.kind())).isPresent())
          .forEach(m -> needed.add(m.to()));
    }
    needed.removeAll(chosen);
    needed.removeIf(here::has);
    return needed;
  }

  /** A page that a text leads to is not taken over with it. */
  private static boolean needed(Mentions.Why why, Kind kind) {
    return why == Mentions.Why.LINK ? kind == Kind.FILE : true;
  }

  private static List<Node> nodes(Tree there, Set<ItemKey> keys) {
    return there.nodes().stream().filter(n -> keys.contains(n.key())).toList();
  }

  /** An item keeps its key unless the draft has that key already. */
  private static Map<ItemKey, ItemKey> keys(Set<ItemKey> all, Tree here) {
    Map<ItemKey, ItemKey> keys = new LinkedHashMap<>();
    all.forEach(k -> keys.put(k, here.has(k) ? ItemKey.fresh() : k));
    return keys;
  }

  private List<Item> items(Tree there, Set<ItemKey> all, Map<ItemKey, ItemKey> keys) {
    List<Item> items = new ArrayList<>();
    for (Item i : trees.items(nodes(there, all))) {
      Aspects a =
          Mentions.renamed(
              Aspects.of(i), k -> ItemKey.of(k).map(key -> keys.getOrDefault(key, key).value()));
      items.add(a.item(keys.get(i.key()), i.kind(), i.rule()));
    }
    return items;
  }

  private static List<Item> placed(
      List<Item> items,
      Tree there,
      Map<ItemKey, ItemKey> keys,
      Set<ItemKey> tops,
      Set<ItemKey> along,
      Tree here,
      Optional<ItemKey> parent,
      Optional<ItemKey> before) {
    Set<ItemKey> first = new LinkedHashSet<>();
    tops.forEach(k -> first.add(keys.get(k)));
    along.forEach(k -> first.add(keys.get(k)));
    List<Item> all = new ArrayList<>();
    Tree now = here;
    Map<ItemKey, ItemKey> back = new HashMap<>();
    keys.forEach((from, to) -> back.put(to, from));
    for (Item i : items) {
      if (first.contains(i.key())) {
        Place place = place(now, i.key(), parent, before);
        Node of = there.get(back.get(i.key())).orElseThrow();
        List<Node> more = new ArrayList<>(now.nodes());
        more.add(
            new Node(
                i.key(),
                of.kind(),
                of.title(),
                parent,
                place.rank(),
                of.rule(),
                of.visibility(),
                of.appliesTo(),
                of.aspects()));
        now = Tree.of(more);
        all.add(i.withPlace(place));
      } else {
        Optional<String> in =
            i.place().parent().map(ItemKey::new).map(keys::get).map(ItemKey::value);
        all.add(i.withPlace(new Place(in, i.place().rank())));
      }
    }
    return all;
  }

  private static Place place(
      Tree tree, ItemKey key, Optional<ItemKey> parent, Optional<ItemKey> before) {
    try {
      return tree.place(key, parent, before);
    } catch (NoSuchPlace e) {
      throw Refusal.bad("There is no such place in the draft.", "Choose a module of the draft.");
    }
  }

  /** From the edition itself, or from wherever the other master has it. */
  private void origins(UUID source, Source from, UUID into, Map<ItemKey, ItemKey> keys) {
    String[] there = keys.keySet().stream().map(ItemKey::value).toArray(String[]::new);
    String[] here = keys.values().stream().map(ItemKey::value).toArray(String[]::new);
    db.query(
            "update tree_item t set origin = coalesce(?::uuid, s.origin) from unnest(?::text[],"
                + " ?::text[]) k(there, here) join tree_item s on s.tree_id = ? and s.item_key ="
                + " k.there where t.tree_id = ? and t.item_key = k.here",
            from.edition().orElse(null),
            there,
            here,
            source,
            into)
        .execute();
  }
}
