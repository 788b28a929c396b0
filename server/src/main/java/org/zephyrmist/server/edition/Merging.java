package org.zephyrmist.server.edition;

import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.TREE_ITEM;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Mentions;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.edition.Brought;
import org.zephyrmist.core.edition.EditionMerge;
import org.zephyrmist.core.edition.Keys;
import org.zephyrmist.core.edition.Lineage;
import org.zephyrmist.core.edition.Pairing;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.web.Refusal;

/** What a newer edition does to a master, from what is kept. */
@Component
class Merging {
  private final DSLContext db;
  private final Trees trees;
  private final Pairings pairings;
  private final Lineages lineages;
  private final SettledClashes settled;

  Merging(
      DSLContext db, Trees trees, Pairings pairings, Lineages lineages, SettledClashes settled) {
    this.settled = settled;
    this.lineages = lineages;
    this.db = db;
    this.trees = trees;
    this.pairings = pairings;
  }

  /**
   * All that a merge looks at.
   *
   * @param base which it is merged against
   * @param older the same in the keys of the master
   * @param raw the newer edition as it is kept
   * @param newer the same with its references in the keys of the master
   */
  record State(
      Base base,
      UUID newerId,
      Tree older,
      Tree raw,
      Tree newer,
      Tree master,
      Pairing pairing,
      Keys keys,
      EditionMerge merge) {
    UUID olderId() {
      return base.edition();
    }

    /** The key in the older edition of an item of it. */
    ItemKey olderKey(ItemKey inMaster) {
      return base.lineage().inEdition(inMaster);
    }
  }

  /**
   * What a master has of its cartridge.
   *
   * @param raw the edition as it is kept
   * @param brought what was last brought of several editions, in the keys of the master; none: all
   *     of the one
   * @param unkept items of what was brought that are not kept yet
   */
  record Base(
      UUID edition, Lineage lineage, Tree raw, Optional<Tree> brought, Map<ItemKey, Item> unkept) {}

  /**
   * What is merged against a newer edition. Where something was taken of another one on which the
   * master is not built yet, it counts as built on that: what was not taken of it stays open.
   *
   * @throws Refusal if the other is no newer edition of the master's cartridge
   */
  Base base(MasterRecord master, UUID newerId) {
    Base built = built(master, newerId);
    Optional<UUID> taking = takenFrom(master, newerId);
    return taking.isEmpty() ? built : taken(of(master, built, taking.get()));
  }

  /** Another edition of which something was taken, and on which the master is not built yet. */
  Optional<UUID> takenFrom(MasterRecord master, UUID newerId) {
    return Optional.ofNullable(master.getTakingEditionId())
        .filter(t -> !t.equals(newerId) && !newerId.equals(master.getEditionId()))
        .filter(t -> cartridge(t).equals(cartridge(newerId)));
  }

  private Base taken(State s) {
    List<Item> items = brought(s);
    Map<ItemKey, Item> unkept = new HashMap<>();
    items.forEach(i -> unkept.put(i.key(), i));
    Tree brought = Tree.of(items.stream().map(i -> Node.of(i, AppliesTo.EVERY_SECTION)).toList());
    return new Base(
        s.newerId(), Lineage.after(s.raw(), s.keys()), s.raw(), Optional.of(brought), unkept);
  }

  private Base built(MasterRecord master, UUID newerId) {
    UUID edition = master.getEditionId();
    if (edition == null) {
      throw Refusal.bad(
          "This master was not built on a cartridge.",
          "Take single items over from the cartridge instead.");
    }
    if (edition.equals(newerId)) {
      throw Refusal.bad("This master is built on that edition already.", "Choose another edition.");
    }
    if (!cartridge(edition).equals(cartridge(newerId))) {
      throw Refusal.bad(
          "That is no edition of the cartridge that this master was built on.",
          "Take single items over from it instead.");
    }
    return new Base(
        edition,
        lineages.of(master.getId()),
        pairings.tree(edition),
        Optional.ofNullable(master.getBroughtTreeId()).map(trees::tree),
        Map.of());
  }

  State of(MasterRecord master, UUID newerId) {
    return of(master, base(master, newerId), newerId);
  }

  private State of(MasterRecord master, Base base, UUID newerId) {
    Lineage lineage = base.lineage();
    Tree older = base.brought().orElseGet(() -> lineage.of(renamed(base.raw(), lineage::of)));
    Tree newer = pairings.tree(newerId);
    Tree draft = trees.tree(master.getDraftTreeId());
    Pairing pairing = lineage.of(pairings.of(base.edition(), newerId));
    pairing = base.brought().isPresent() ? Brought.pairing(pairing, older) : pairing;
    Set<ItemKey> taken = taken(master.getDraftTreeId(), newerId);
    Keys keys = Keys.of(older, newer, draft, pairing, taken, newerId.toString());
    Tree translated = renamed(newer, keys::of);
    return new State(
        base,
        newerId,
        older,
        newer,
        translated,
        draft,
        pairing,
        keys,
        EditionMerge.of(
            older, translated, draft, pairing, keys, settled.of(master.getId(), newerId)));
  }

  /** What would be brought of an edition: what was not taken stays open, by aspect. */
  List<Item> brought(State s) {
    List<Brought.Part> parts =
        Brought.after(s.merge(), s.older(), s.newer(), s.master(), s.keys()).parts();
    Map<ItemKey, Item> newer = items(s.raw(), parts.stream().flatMap(p -> p.newer().stream()));
    Map<ItemKey, Item> before =
        older(s, parts.stream().filter(p -> !p.before().isEmpty()).map(Brought.Part::key).toList());
    List<Item> all = new ArrayList<>();
    for (Brought.Part p : parts) {
      Optional<Item> was = Optional.ofNullable(before.get(p.key()));
      Item is = p.newer().map(k -> renamed(newer.get(k), s.keys()::of)).orElseGet(was::orElseThrow);
      Map<Aspect, String> forms = new HashMap<>(AspectForms.of(is));
      was.ifPresent(w -> p.before().forEach(a -> forms.put(a, AspectForms.of(w).get(a))));
      all.add(
          AspectForms.item(p.key(), is.kind(), is.rule(), forms)
              .withPlace(new Place(p.parent().map(ItemKey::value), p.rank())));
    }
    return all;
  }

  /** Items of a tree as they are kept. */
  Map<ItemKey, Item> items(Tree tree, Stream<ItemKey> keys) {
    Map<ItemKey, Item> all = new HashMap<>();
    trees.items(keys.flatMap(k -> tree.get(k).stream()).toList()).forEach(i -> all.put(i.key(), i));
    return all;
  }

  /** Items as they were last brought, by their keys in the master, naming others by these. */
  Map<ItemKey, Item> older(State s, Collection<ItemKey> keys) {
    Base base = s.base();
    if (!base.unkept().isEmpty()) {
      Map<ItemKey, Item> all = new HashMap<>(base.unkept());
      all.keySet().retainAll(keys);
      return all;
    }
    if (base.brought().isPresent()) {
      return items(s.older(), keys.stream());
    }
    Map<ItemKey, Item> all = new HashMap<>();
    items(base.raw(), keys.stream().map(s::olderKey))
        .values()
        .forEach(i -> all.put(base.lineage().of(i.key()), renamed(i, base.lineage()::of)));
    return all;
  }

  /** What the draft has from an edition already. */
  private Set<ItemKey> taken(UUID tree, UUID edition) {
    return db
        .select(TREE_ITEM.ITEM_KEY)
        .from(TREE_ITEM)
        .where(TREE_ITEM.TREE_ID.eq(tree))
        .and(TREE_ITEM.ORIGIN.eq(edition))
        .fetch(TREE_ITEM.ITEM_KEY)
        .stream()
        .map(ItemKey::new)
        .collect(Collectors.toSet());
  }

  /** The same tree, its items naming others by the keys that these have in the master. */
  private Tree renamed(Tree of, UnaryOperator<ItemKey> to) {
    if (of.nodes().stream().allMatch(n -> to.apply(n.key()).equals(n.key()))) {
      return of;
    }
    Map<ItemKey, Fingerprints> aspects = new HashMap<>();
    for (Item i : trees.items(of.nodes())) {
      aspects.put(i.key(), AspectForms.fingerprints(renamed(i, to)));
    }
    List<Node> all = new ArrayList<>();
    for (Node n : of.nodes()) {
      Fingerprints named = aspects.get(n.key());
      all.add(n.withAspects(named.with(Set.of(Aspect.PLACE), n.aspects())));
    }
    return Tree.of(all);
  }

  /** An item that names others by the keys that these have in the master. */
  static Item renamed(Item i, UnaryOperator<ItemKey> to) {
    return Mentions.renamed(
            Aspects.of(i),
            key -> Optional.of(ItemKey.of(key).map(k -> to.apply(k).value()).orElse(key)))
        .item(i.key(), i.kind(), i.rule());
  }

  private UUID cartridge(UUID edition) {
    return db.select(EDITION.CARTRIDGE_ID)
        .from(EDITION)
        .where(EDITION.ID.eq(edition))
        .fetchOptional(EDITION.CARTRIDGE_ID)
        .orElseThrow(() -> Refusal.notFound("edition"));
  }
}
