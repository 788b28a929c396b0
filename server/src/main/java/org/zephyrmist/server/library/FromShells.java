package org.zephyrmist.server.library;

import static org.jooq.impl.DSL.any;
import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.TREE_ITEM;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.shell.FromShell;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.ledger.Holding;
import org.zephyrmist.server.master.Masters;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.shell.Reading;
import org.zephyrmist.server.shell.Shell;
import org.zephyrmist.server.shell.ShellItems;
import org.zephyrmist.server.shell.ShellReader;
import org.zephyrmist.server.shell.Shells;

/** Makes masters of what shells hold. */
@Component
class FromShells {
  private final DSLContext db;
  private final Masters masters;
  private final Trees trees;
  private final Files files;
  private final Shells shells;
  private final ShellReader reader;
  private final TransactionTemplate transaction;

  FromShells(
      DSLContext db,
      Masters masters,
      Trees trees,
      Files files,
      Shells shells,
      ShellReader reader,
      TransactionTemplate transaction) {
    this.transaction = transaction;
    this.db = db;
    this.masters = masters;
    this.trees = trees;
    this.files = files;
    this.shells = shells;
    this.reader = reader;
  }

  /**
   * What of a shell would become a master.
   *
   * @param missing names of files that its texts show and only the platform has
   */
  record Look(FromShell taken, List<String> missing) {}

  /** Reads the shell; nothing is kept. */
  Look look(UUID section) {
    Shell shell = shells.of(section);
    PlatformGateway gateway = shells.gateway(shell);
    Reading reading = reader.read(gateway, shell);
    List<FromShell.There> there = new ArrayList<>();
    for (ShellItems.Placed p : ShellItems.outline(reading, gateway.addresses(), shell.there())) {
      there.add(new FromShell.There(p.item(), p.held().studentWork()));
    }
    FromShell taken = FromShell.of(there, known(reading, there));
    return new Look(taken, missing(taken.items()));
  }

  private List<String> missing(List<Item> items) {
    Map<String, String> named = new HashMap<>();
    for (Item i : items) {
      References.files(i.content().html()).forEach(f -> named.put(f.sha256(), f.name()));
      i.content().madeOf().ifPresent(f -> named.put(f.sha256(), f.name()));
      i.content().attached().forEach(f -> named.put(f.sha256(), f.name()));
    }
    Set<String> there = files.refs(named).keySet();
    return named.entrySet().stream()
        .filter(e -> !there.contains(e.getKey()))
        .map(Map.Entry::getValue)
        .sorted()
        .toList();
  }

  /** By the ledger where we delivered it, else by what it says to the letter. */
  private Function<Item, Optional<FromShell.Known>> known(
      Reading reading, List<FromShell.There> there) {
    Map<String, FromShell.Known> byId = delivered(reading);
    Map<Fingerprint, FromShell.Known> byText = alike(there);
    return i ->
        Optional.ofNullable(byId.get(i.key().value()))
            .or(
                () ->
                    Optional.ofNullable(byText.get(AspectForms.fingerprints(i).get(Aspect.WORDING)))
                        .filter(k -> k.item().kind() == i.kind()));
  }

  private Map<String, FromShell.Known> delivered(Reading reading) {
    Map<String, FromShell.Known> all = new HashMap<>();
    Map<UUID, Map<ItemKey, Item>> drafts = new HashMap<>();
    for (Holding h : reading.holdings()) {
      Map<ItemKey, Item> draft = drafts.computeIfAbsent(h.master(), this::draft);
      Optional.ofNullable(draft.get(h.base().key()))
          .ifPresent(
              i -> all.put(ShellItems.key(h.platformItem()).value(), new FromShell.Known("", i)));
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
    there.forEach(t -> texts.add(AspectForms.fingerprints(t.item()).get(Aspect.WORDING)));
    byte[][] wanted = texts.stream().map(Fingerprint::bytes).toArray(byte[][]::new);
    Map<Fingerprint, FromShell.Known> all = new HashMap<>();
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
                                AspectForms.fingerprints(i).get(Aspect.WORDING),
                                new FromShell.Known(edition.value1().toString(), i))));
    return all;
  }

  /** A new master whose draft is what the shell holds; all or nothing, once it is read. */
  public UUID make(
      UUID section,
      String code,
      String title,
      Optional<UUID> program,
      List<UUID> courses,
      SignedIn who) {
    FromShell taken = look(section).taken();
    return transaction.execute(t -> keep(taken, code, title, program, courses, who));
  }

  private UUID keep(
      FromShell taken,
      String code,
      String title,
      Optional<UUID> program,
      List<UUID> courses,
      SignedIn who) {
    UUID master = masters.make(code, title, program, Optional.empty(), courses, who);
    UUID tree = masters.get(master, who).getDraftTreeId();
    trees.put(tree, taken.items());
    Map<UUID, List<ItemKey>> origins = new HashMap<>();
    taken
        .origins()
        .forEach(
            (key, k) -> {
              if (!k.source().isEmpty()) {
                origins
                    .computeIfAbsent(UUID.fromString(k.source()), e -> new ArrayList<>())
                    .add(key);
              }
            });
    origins.forEach((edition, keys) -> trees.origin(tree, keys, edition));
    return master;
  }
}
