package org.zephyrmist.server.edition;

import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.TREE_ITEM;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.edition.EditionMerge;
import org.zephyrmist.core.edition.Keys;
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

  Merging(DSLContext db, Trees trees, Pairings pairings) {
    this.db = db;
    this.trees = trees;
    this.pairings = pairings;
  }

  /**
   * All that a merge looks at.
   *
   * @param raw the newer edition as it is kept
   * @param newer the same with its references in the keys of the master
   */
  record State(
      UUID olderId,
      UUID newerId,
      Tree older,
      Tree raw,
      Tree newer,
      Tree master,
      Pairing pairing,
      Keys keys,
      EditionMerge merge) {}

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
    Tree older = pairings.tree(olderId);
    Tree newer = pairings.tree(newerId);
    Tree draft = trees.tree(master.getDraftTreeId());
    Pairing pairing = pairings.of(olderId, newerId);
    Set<ItemKey> taken = taken(master.getDraftTreeId(), newerId);
    Keys keys = Keys.of(older, newer, draft, pairing, taken, newerId.toString());
    Tree translated = keys.same() ? newer : translated(newer, keys);
    return new State(
        olderId,
        newerId,
        older,
        newer,
        translated,
        draft,
        pairing,
        keys,
        EditionMerge.of(older, translated, draft, pairing, keys));
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

  /** The same tree, its texts referring to items by the keys that these have in the master. */
  private Tree translated(Tree newer, Keys keys) {
    Map<ItemKey, Fingerprint> wordings = new HashMap<>();
    for (Item i : trees.items(newer.nodes())) {
      Item to = translated(i, keys);
      if (to != i) {
        wordings.put(i.key(), Fingerprint.of(AspectForms.of(to).get(Aspect.WORDING)));
      }
    }
    List<Node> all = new ArrayList<>();
    for (Node n : newer.nodes()) {
      Fingerprint w = wordings.get(n.key());
      Fingerprints aspects = w == null ? n.aspects() : n.aspects().with(Aspect.WORDING, w);
      all.add(
          new Node(
              n.key(),
              n.kind(),
              n.title(),
              n.parent(),
              n.rank(),
              n.rule(),
              n.visibility(),
              n.appliesTo(),
              aspects));
    }
    return Tree.of(all);
  }

  /** An item of the newer edition with its references in the keys of the master. */
  static Item translated(Item i, Keys keys) {
    String html = i.content().html();
    if (!html.contains("zref:item/")) {
      return i;
    }
    String mapped =
        Html.mapAddresses(
            html,
            a ->
                References.asItem(a)
                    .map(r -> References.item(keys.of(r.key()), r.fragment()))
                    .orElse(a));
    if (mapped.equals(html)) {
      return i;
    }
    Aspects a = Aspects.of(i);
    return a.with(a.wording().withHtml(mapped)).item(i.key(), i.kind(), i.rule());
  }

  private UUID cartridge(UUID edition) {
    return db.select(EDITION.CARTRIDGE_ID)
        .from(EDITION)
        .where(EDITION.ID.eq(edition))
        .fetchOptional(EDITION.CARTRIDGE_ID)
        .orElseThrow(() -> Refusal.notFound("edition"));
  }
}
