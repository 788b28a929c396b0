package org.zephyrmist.server.archive;

import static org.zephyrmist.server.db.Tables.CARTRIDGE;
import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.PACKAGE_FILE;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.TREE_ITEM;

import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.jooq.Record;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.cartridge.ReadingReport;
import org.zephyrmist.core.cartridge.WholeSource;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.CartridgeRecord;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;
import tools.jackson.databind.json.JsonMapper;

/** Cartridges with all their editions, to and from archives. */
@Component
class CartridgeArchives {
  private static final int BATCH = 5_000;
  private final DSLContext db;
  private final Trees trees;
  private final JsonMapper json;

  CartridgeArchives(DSLContext db, Trees trees, JsonMapper json) {
    this.db = db;
    this.trees = trees;
    this.json = json;
  }

  /** Everything of a cartridge; refused where something protected may not leave. */
  WholeSource of(UUID cartridge) {
    CartridgeRecord c =
        db.selectFrom(CARTRIDGE)
            .where(CARTRIDGE.ID.eq(cartridge))
            .fetchOptional()
            .orElseThrow(() -> Refusal.notFound("cartridge"));
    List<WholeSource.State> editions = new ArrayList<>();
    List<UUID> all = new ArrayList<>();
    db.select(EDITION.fields())
        .select(PERSON.NAME)
        .from(EDITION)
        .join(PERSON)
        .on(PERSON.ID.eq(EDITION.TAKEN_BY))
        .where(EDITION.CARTRIDGE_ID.eq(cartridge))
        .orderBy(EDITION.NUMBER)
        .forEach(
            r -> {
              all.add(r.get(EDITION.TREE_ID));
              editions.add(edition(r));
            });
    if (c.getConsentAt() == null && isProtected(all)) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "Parts of “"
              + c.getTitle()
              + "” ask for authorisation, and no administrator has consented that they leave.",
          "Ask an administrator to consent on the cartridge's page.");
    }
    return new WholeSource(
        c.getIdentifier(),
        "",
        c.getTitle(),
        Optional.of(
            new WholeSource.Maker(c.getMakerIdentifier(), c.getPublisher(), c.getOldKeys())),
        editions);
  }

  private boolean isProtected(Collection<UUID> all) {
    return db.fetchExists(TREE_ITEM, TREE_ITEM.TREE_ID.in(all).and(TREE_ITEM.ASKS.ne("")));
  }

  private WholeSource.State edition(Record r) {
    return new WholeSource.State(
        r.get(EDITION.NUMBER),
        "",
        r.get(PERSON.NAME),
        r.get(EDITION.TAKEN_AT).withOffsetSameInstant(ZoneOffset.UTC),
        Optional.of(
            new WholeSource.Package(
                r.get(EDITION.FILE_NAME),
                Fingerprint.of(r.get(EDITION.SHA256)).hex(),
                r.get(EDITION.SIZE),
                json.readValue(r.get(EDITION.REPORT).data(), ReadingReport.class),
                files(r.get(EDITION.TREE_ID)))),
        Archives.entries(trees, r.get(EDITION.TREE_ID)));
  }

  private SortedMap<String, String> files(UUID tree) {
    SortedMap<String, String> files = new TreeMap<>();
    db.select(PACKAGE_FILE.PATH, PACKAGE_FILE.SHA256)
        .from(PACKAGE_FILE)
        .where(PACKAGE_FILE.TREE_ID.eq(tree))
        .forEach(r -> files.put(r.value1(), Fingerprint.of(r.value2()).hex()));
    return files;
  }

  /**
   * Keeps a cartridge of its own. One of the same name that is here already stays as it is; a
   * person can say that they are one.
   *
   * @return its newest edition
   */
  UUID take(WholeSource source, WholeSource.Maker maker, Received received, SignedIn who) {
    String title = Titles.clean(source.title());
    if (received.kept().isEmpty() || title.isBlank()) {
      throw Refusal.bad("The archive holds no edition.", "Make it again where it came from.");
    }
    known(received);
    UUID cartridge = UUID.randomUUID();
    boolean named =
        source.identity().isBlank()
            || db.fetchExists(CARTRIDGE, CARTRIDGE.IDENTIFIER.eq(source.identity()));
    db.insertInto(CARTRIDGE)
        .set(CARTRIDGE.ID, cartridge)
        .set(CARTRIDGE.TITLE, title)
        .set(CARTRIDGE.IDENTIFIER, named ? cartridge.toString() : source.identity())
        .set(CARTRIDGE.MAKER_IDENTIFIER, maker.identifier())
        .set(CARTRIDGE.PUBLISHER, maker.publisher())
        .set(CARTRIDGE.OLD_KEYS, maker.oldKeys())
        .execute();
    UUID newest = null;
    for (Received.Kept k : received.kept().values()) {
      newest = keep(cartridge, k, who);
    }
    return newest;
  }

  private void known(Received received) {
    List<byte[]> packages =
        received.kept().values().stream()
            .map(k -> Fingerprint.parse(k.state().from().orElseThrow().sha256()).bytes())
            .toList();
    List<String> here =
        db.select(CARTRIDGE.TITLE, EDITION.NUMBER)
            .from(EDITION)
            .join(CARTRIDGE)
            .on(CARTRIDGE.ID.eq(EDITION.CARTRIDGE_ID))
            .where(EDITION.SHA256.in(packages))
            .fetch(r -> "“" + r.value1() + "”, edition " + r.value2());
    if (!here.isEmpty()) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "The archive holds what is here already: " + String.join("; ", here) + ".",
          "Go on with that one; nothing was kept.");
    }
  }

  private UUID keep(UUID cartridge, Received.Kept k, SignedIn who) {
    WholeSource.Package from = k.state().from().orElseThrow();
    UUID edition = UUID.randomUUID();
    db.insertInto(EDITION)
        .set(EDITION.ID, edition)
        .set(EDITION.CARTRIDGE_ID, cartridge)
        .set(EDITION.NUMBER, k.state().number())
        .set(EDITION.TREE_ID, k.tree())
        .set(EDITION.FILE_NAME, Titles.clean(from.fileName()))
        .set(EDITION.SHA256, Fingerprint.parse(from.sha256()).bytes())
        .set(EDITION.SIZE, from.size())
        .set(EDITION.REPORT, JSONB.valueOf(json.writeValueAsString(from.report())))
        .set(EDITION.TAKEN_BY, who.id())
        .set(EDITION.TAKEN_AT, k.state().at())
        .execute();
    List<String> paths = List.copyOf(from.files().keySet());
    for (int i = 0; i < paths.size(); i += BATCH) {
      List<String> some = paths.subList(i, Math.min(paths.size(), i + BATCH));
      db.query(
              "insert into package_file (tree_id, path, sha256) select ?, p, decode(s, 'hex') from"
                  + " unnest(?::text[], ?::text[]) f(p, s)",
              k.tree(),
              some.toArray(String[]::new),
              some.stream().map(from.files()::get).toArray(String[]::new))
          .execute();
    }
    return edition;
  }
}
