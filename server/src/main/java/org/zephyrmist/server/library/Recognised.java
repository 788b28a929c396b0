package org.zephyrmist.server.library;

import static org.jooq.impl.DSL.any;
import static org.zephyrmist.server.db.Tables.CARTRIDGE;
import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.TREE_ITEM;

import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.edition.Entry;
import org.zephyrmist.core.edition.Pair;
import org.zephyrmist.core.edition.Pairing;
import org.zephyrmist.core.question.QuestionSet;
import org.zephyrmist.core.shell.FromShell;
import org.zephyrmist.server.content.Questions;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.ledger.Holding;
import org.zephyrmist.server.shell.Reading;
import org.zephyrmist.server.shell.ShellItems;

/** Which items of a shell are items of a source. */
@Component
class Recognised {
  private static final int SOURCES = 3;
  private final DSLContext db;
  private final Trees trees;
  private final Questions questions;

  Recognised(DSLContext db, Trees trees, Questions questions) {
    this.db = db;
    this.trees = trees;
    this.questions = questions;
  }

  /** By the ledger where we delivered it, else by what it says to the letter, else by likeness. */
  Function<Item, Optional<FromShell.Known>> in(Reading reading, List<FromShell.There> there) {
    Map<String, FromShell.Known> byId = delivered(reading);
    Map<Fingerprint, FromShell.Known> byText = alike(there);
    Map<String, FromShell.Known> near =
        near(
            there.stream().map(FromShell.There::item).toList(),
            i -> !byId.containsKey(i.key().value()) && !byText.containsKey(wording(i)));
    return i ->
        Optional.ofNullable(byId.get(i.key().value()))
            .or(
                () ->
                    Optional.ofNullable(byText.get(wording(i)))
                        .filter(k -> k.item().kind() == i.kind()))
            .or(() -> Optional.ofNullable(near.get(i.key().value())));
  }

  private Map<String, FromShell.Known> delivered(Reading reading) {
    Map<String, FromShell.Known> all = new HashMap<>();
    Map<UUID, Map<ItemKey, Item>> drafts = new HashMap<>();
    Set<UUID> fresh =
        db.select(MASTER.ID).from(MASTER).where(MASTER.FRESH_EACH_TERM).fetchSet(MASTER.ID);
    for (Holding h : reading.holdings()) {
      Map<ItemKey, Item> draft = drafts.computeIfAbsent(h.master(), this::draft);
      Optional.ofNullable(draft.get(h.base().key()))
          .ifPresent(
              i ->
                  all.put(
                      ShellItems.key(h.platformItem()).value(),
                      new FromShell.Known("", i, fresh.contains(h.master()))));
    }
    return all;
  }

  private Map<ItemKey, Item> draft(UUID master) {
    UUID tree =
        db.select(MASTER.DRAFT_TREE_ID)
            .from(MASTER)
            .where(MASTER.ID.eq(master))
            .fetchSingle(MASTER.DRAFT_TREE_ID);
    Map<ItemKey, Item> all = new HashMap<>();
    trees.items(trees.tree(tree).nodes()).forEach(i -> all.put(i.key(), i));
    return all;
  }

  /** Items of cartridges that say the same; one query for all texts. */
  private Map<Fingerprint, FromShell.Known> alike(List<FromShell.There> there) {
    Set<Fingerprint> texts = new HashSet<>();
    there.forEach(t -> texts.add(wording(t.item())));
    byte[][] wanted = texts.stream().map(Fingerprint::bytes).toArray(byte[][]::new);
    Map<Fingerprint, FromShell.Known> all = new HashMap<>();
    Set<UUID> fresh = fresh();
    db.select(EDITION.ID, EDITION.TREE_ID, TREE_ITEM.ITEM_KEY)
        .from(TREE_ITEM)
        .join(EDITION)
        .on(EDITION.TREE_ID.eq(TREE_ITEM.TREE_ID))
        .where(
            org.jooq
                .impl
                .DSL
                .field("substring(aspects from 1 for 32)", byte[].class)
                .eq(any(wanted)))
        .orderBy(EDITION.NUMBER)
        .fetchGroups(r -> r.into(EDITION.ID, EDITION.TREE_ID), r -> new ItemKey(r.value3()))
        .forEach(
            (edition, keys) ->
                trees
                    .items(trees.nodes(edition.value2(), keys))
                    .forEach(
                        i ->
                            all.put(
                                wording(i),
                                new FromShell.Known(
                                    edition.value1().toString(),
                                    i,
                                    fresh.contains(edition.value1())))));
    return all;
  }

  /** Editions of cartridges that are taken anew each term. */
  private Set<UUID> fresh() {
    return db.select(EDITION.ID)
        .from(EDITION)
        .join(CARTRIDGE)
        .on(CARTRIDGE.ID.eq(EDITION.CARTRIDGE_ID))
        .where(CARTRIDGE.FRESH_EACH_TERM)
        .fetchSet(EDITION.ID);
  }

  private static Fingerprint wording(Item i) {
    return AspectForms.fingerprints(i).get(Aspect.WORDING);
  }

  /**
   * Items of the cartridges that share most titles with the shell, where it is sure that one became
   * the other.
   *
   * @param open whether an item is still to be recognised
   */
  private Map<String, FromShell.Known> near(List<Item> shell, Predicate<Item> open) {
    List<Item> left = shell.stream().filter(open).toList();
    Map<String, FromShell.Known> all = new HashMap<>();
    if (left.isEmpty()) {
      return all;
    }
    List<Entry> here = entries(shell);
    Set<UUID> fresh = fresh();
    Set<String> wanted = left.stream().map(i -> i.key().value()).collect(Collectors.toSet());
    editions(left)
        .forEach(
            (edition, tree) -> {
              List<Item> items = trees.items(trees.tree(tree).nodes());
              Map<ItemKey, Item> byKey = new HashMap<>();
              items.forEach(i -> byKey.put(i.key(), i));
              Pairing.of(entries(items), here, Pairing.Decided.NOTHING).pairs().stream()
                  .filter(p -> p.certainty() == Pair.Certainty.SURE)
                  .filter(p -> wanted.contains(p.newer().value()))
                  .forEach(
                      p ->
                          all.putIfAbsent(
                              p.newer().value(),
                              new FromShell.Known(
                                  edition.toString(),
                                  byKey.get(p.older()),
                                  fresh.contains(edition))));
            });
    return all;
  }

  private List<Entry> entries(List<Item> items) {
    Map<ItemKey, QuestionSet> sets = questions.of(items);
    return items.stream().map(i -> Entry.of(i, Optional.ofNullable(sets.get(i.key())))).toList();
  }

  /** Trees of the editions that have most of these titles, the newer one first where they tie. */
  private Map<UUID, UUID> editions(List<Item> items) {
    String[] titles =
        items.stream()
            .map(i -> i.title().toLowerCase(Locale.ROOT))
            .distinct()
            .toArray(String[]::new);
    Map<UUID, UUID> found = new LinkedHashMap<>();
    db.fetch(
            "select e.id, e.tree_id from edition e join tree_item t on t.tree_id = e.tree_id"
                + " where lower(t.title) = any(?) group by e.id, e.tree_id, e.number"
                + " order by count(distinct lower(t.title)) desc, e.number desc limit ?",
            titles,
            SOURCES)
        .forEach(r -> found.put(r.get(0, UUID.class), r.get(1, UUID.class)));
    return found;
  }
}
