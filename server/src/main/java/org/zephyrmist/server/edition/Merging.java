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
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Mentions;
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
   * @param olderRaw the older edition as it is kept
   * @param brought whether older is what was last brought of several editions, else of the older
   * @param older in the keys of the master
   * @param raw the newer edition as it is kept
   * @param newer the same with its references in the keys of the master
   */
  record State(
      UUID olderId,
      UUID newerId,
      Lineage lineage,
      Tree olderRaw,
      boolean brought,
      Tree older,
      Tree raw,
      Tree newer,
      Tree master,
      Pairing pairing,
      Keys keys,
      EditionMerge merge) {
    /** The key in the older edition of an item of it. */
    ItemKey olderKey(ItemKey inMaster) {
      return lineage.inEdition(inMaster);
    }
  }

  /** The edition that a master is built on, if the other is a newer one of the same cartridge. */
  UUID older(MasterRecord master, UUID newerId) {
    UUID olderId = master.getEditionId();
    if (olderId == null) {
      throw Refusal.bad(
          "This master was not built on a cartridge.",
          "Take single items over from the cartridge instead.");
    }
    if (olderId.equals(newerId)) {
      throw Refusal.bad("This master is built on that edition already.", "Choose another edition.");
    }
    if (!cartridge(olderId).equals(cartridge(newerId))) {
      throw Refusal.bad(
          "That is no edition of the cartridge that this master was built on.",
          "Take single items over from it instead.");
    }
    return olderId;
  }

  State of(MasterRecord master, UUID newerId) {
    UUID olderId = older(master, newerId);
    Lineage lineage = lineages.of(master.getId());
    Tree olderRaw = pairings.tree(olderId);
    Optional<Tree> brought = Optional.ofNullable(master.getBroughtTreeId()).map(trees::tree);
    Tree older = brought.orElseGet(() -> lineage.of(renamed(olderRaw, lineage::of)));
    Tree newer = pairings.tree(newerId);
    Tree draft = trees.tree(master.getDraftTreeId());
    Pairing pairing = lineage.of(pairings.of(olderId, newerId));
    pairing = brought.isPresent() ? Brought.pairing(pairing, older) : pairing;
    Set<ItemKey> taken = taken(master.getDraftTreeId(), newerId);
    Keys keys = Keys.of(older, newer, draft, pairing, taken, newerId.toString());
    Tree translated = renamed(newer, keys::of);
    return new State(
        olderId,
        newerId,
        lineage,
        olderRaw,
        brought.isPresent(),
        older,
        newer,
        translated,
        draft,
        pairing,
        keys,
        EditionMerge.of(
            older, translated, draft, pairing, keys, settled.of(master.getId(), newerId)));
  }

  /** Items as they were last brought, by their keys in the master, naming others by these. */
  Map<ItemKey, Item> older(State s, Collection<ItemKey> keys) {
    Map<ItemKey, Item> all = new HashMap<>();
    if (s.brought()) {
      trees
          .items(keys.stream().flatMap(k -> s.older().get(k).stream()).toList())
          .forEach(i -> all.put(i.key(), i));
      return all;
    }
    trees
        .items(keys.stream().flatMap(k -> s.olderRaw().get(s.olderKey(k)).stream()).toList())
        .forEach(i -> all.put(s.lineage().of(i.key()), renamed(i, s.lineage()::of)));
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
