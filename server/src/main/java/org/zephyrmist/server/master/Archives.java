package org.zephyrmist.server.master;

import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Path;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.cartridge.CartridgeException;
import org.zephyrmist.core.cartridge.WholeReader;
import org.zephyrmist.core.cartridge.WholeSource;
import org.zephyrmist.core.cartridge.WholeWriter;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Whole masters, with all their versions, as archives to keep and to move. */
@Component
class Archives {
  private final DSLContext db;
  private final Masters masters;
  private final Trees trees;
  private final Bodies bodies;
  private final Files files;
  private final Consents consents;
  private final Clock clock;

  Archives(
      DSLContext db,
      Masters masters,
      Trees trees,
      Bodies bodies,
      Files files,
      Consents consents,
      Clock clock) {
    this.db = db;
    this.masters = masters;
    this.trees = trees;
    this.bodies = bodies;
    this.files = files;
    this.consents = consents;
    this.clock = clock;
  }

  /** Everything of a master; refused where something protected may not leave. */
  WholeSource of(MasterRecord m) {
    List<UUID> all = new ArrayList<>(List.of(m.getDraftTreeId()));
    masters.versions(m.getId()).forEach(v -> all.add(v.getTreeId()));
    consents.check(all);
    List<WholeSource.State> states = new ArrayList<>();
    db.select(VERSION.fields())
        .select(PERSON.NAME)
        .from(VERSION)
        .join(PERSON)
        .on(PERSON.ID.eq(VERSION.FROZEN_BY))
        .where(VERSION.MASTER_ID.eq(m.getId()))
        .orderBy(VERSION.NUMBER)
        .forEach(
            r ->
                states.add(
                    new WholeSource.State(
                        r.get(VERSION.NUMBER),
                        r.get(VERSION.NOTE),
                        r.get(PERSON.NAME),
                        r.get(VERSION.FROZEN_AT).withOffsetSameInstant(ZoneOffset.UTC),
                        entries(r.get(VERSION.TREE_ID)))));
    states.add(
        new WholeSource.State(0, "", "", OffsetDateTime.now(clock), entries(m.getDraftTreeId())));
    return new WholeSource(m.getId().toString(), m.getCode(), m.getTitle(), states);
  }

  private List<WholeSource.Entry> entries(UUID tree) {
    Map<ItemKey, String> ties = trees.ties(tree);
    return trees.tree(tree).nodes().stream().map(n -> entry(n, ties)).toList();
  }

  private static WholeSource.Entry entry(Node n, Map<ItemKey, String> ties) {
    return new WholeSource.Entry(
        n.key(),
        n.kind(),
        n.rule(),
        n.appliesTo(),
        Optional.ofNullable(ties.get(n.key())),
        n.aspects());
  }

  void write(WholeSource source, OutputStream out) throws IOException {
    WholeWriter.write(out, source, bodies::get, files::refs, files::open);
  }

  /** Takes an archive in as a master of its own, all or nothing. */
  @Transactional
  public UUID take(Path file, String code, SignedIn who) throws IOException {
    Map<Integer, UUID> kept = new TreeMap<>();
    Map<Integer, WholeSource.State> states = new HashMap<>();
    WholeSource source;
    try {
      source = WholeReader.read(file, receiver(kept, states));
    } catch (CartridgeException e) {
      String place = e.place().isEmpty() ? "" : e.place() + ": ";
      throw Refusal.bad(place + e.getMessage(), e.remedy());
    }
    if (!kept.containsKey(0)) {
      throw Refusal.bad(
          "source.json: The archive holds no draft.", "Make the archive again where it came from.");
    }
    String name = code.isBlank() ? source.code() : code.strip();
    if (name.isBlank() || name.length() > 40 || source.title().isBlank()) {
      throw Refusal.bad("The master has no code or no title.", "Send its code with the archive.");
    }
    UUID master =
        masters.make(name, source.title(), Optional.empty(), Optional.empty(), List.of(), who);
    db.update(MASTER).set(MASTER.DRAFT_TREE_ID, kept.get(0)).where(MASTER.ID.eq(master)).execute();
    kept.forEach(
        (number, tree) -> {
          if (number > 0) {
            version(master, states.get(number), tree, who);
          }
        });
    return master;
  }

  private void version(UUID master, WholeSource.State s, UUID tree, SignedIn who) {
    db.insertInto(VERSION)
        .set(VERSION.ID, UUID.randomUUID())
        .set(VERSION.MASTER_ID, master)
        .set(VERSION.NUMBER, s.number())
        .set(VERSION.TREE_ID, tree)
        .set(VERSION.NOTE, s.note().isBlank() ? "Version " + s.number() : s.note())
        .set(VERSION.ITEMS, s.items().size())
        .set(VERSION.FROZEN_BY, who.id())
        .set(VERSION.FROZEN_AT, s.at())
        .execute();
  }

  private WholeReader.Receiver receiver(
      Map<Integer, UUID> kept, Map<Integer, WholeSource.State> states) {
    return new WholeReader.Receiver() {
      @Override
      public FileRef file(String mediaType, InputStream in) throws IOException {
        return files.keep("file", mediaType, in);
      }

      @Override
      public void state(WholeSource.State s, List<Item> items) {
        UUID tree = trees.create();
        trees.put(tree, items);
        own(tree, s.items());
        kept.put(s.number(), tree);
        states.put(s.number(), s);
      }
    };
  }

  /** For whom items are meant and what they go with, a call for each answer. */
  private void own(UUID tree, List<WholeSource.Entry> items) {
    Map<AppliesTo, List<ItemKey>> meant = new HashMap<>();
    Map<String, List<ItemKey>> tied = new HashMap<>();
    for (WholeSource.Entry e : items) {
      if (!e.appliesTo().equals(AppliesTo.EVERY_SECTION)) {
        meant.computeIfAbsent(e.appliesTo(), x -> new ArrayList<>()).add(e.key());
      }
      e.goesWith().ifPresent(t -> tied.computeIfAbsent(t, x -> new ArrayList<>()).add(e.key()));
    }
    meant.forEach((to, keys) -> trees.appliesTo(tree, keys, to));
    tied.forEach((tie, keys) -> trees.tie(tree, keys, Optional.of(tie)));
  }
}
