package org.zephyrmist.server.cartridge;

import static org.jooq.impl.DSL.coalesce;
import static org.jooq.impl.DSL.max;
import static org.zephyrmist.server.db.Tables.CARTRIDGE;
import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.Optional;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.cartridge.CartridgeFacts;
import org.zephyrmist.core.content.KeySpace;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.server.db.tables.records.CartridgeRecord;
import org.zephyrmist.server.db.tables.records.EditionRecord;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/**
 * Which package is an edition of which cartridge: what its maker calls it tells, else title and
 * publisher together. A person may decide otherwise.
 */
@Component
class Cartridges {
  /** Shorter ones are names like "manifest" that many programs give. */
  private static final int TELLING = 12;

  private static final Pattern OURS =
      Pattern.compile("zephyrmist:([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}):(\\d{1,6})(:.*)?");

  private final DSLContext db;
  private final Clock clock;
  private final Events events;

  Cartridges(DSLContext db, Clock clock, Events events) {
    this.db = db;
    this.clock = clock;
    this.events = events;
  }

  static String title(CartridgeFacts facts, String fileName) {
    return facts.title().isBlank() ? stem(fileName) : facts.title();
  }

  private static String stem(String name) {
    String stem = name.replaceFirst("\\.[A-Za-z0-9]{1,6}$", "");
    return stem.isBlank() ? "Untitled cartridge" : stem;
  }

  /** The keys of all editions of a cartridge, those it had before keys named their source too. */
  KeySpace keySpace(CartridgeFacts facts, String title) {
    Optional<CartridgeRecord> known = known(facts, title);
    return known.filter(CartridgeRecord::getOldKeys).isPresent()
        ? KeySpace.WITHOUT_SOURCE
        : KeySpace.of(
            known.map(CartridgeRecord::getIdentifier).orElseGet(() -> identifier(facts, title)));
  }

  private Optional<CartridgeRecord> known(CartridgeFacts facts, String title) {
    String maker = makerIdentifier(facts);
    Optional<CartridgeRecord> same =
        maker.isEmpty()
            ? Optional.empty()
            : first(
                CARTRIDGE
                    .MAKER_IDENTIFIER
                    .eq(maker)
                    .and(CARTRIDGE.PUBLISHER.in("", facts.publisher())));
    return same.or(() -> first(CARTRIDGE.IDENTIFIER.eq(identifier(facts, title))))
        .or(
            () ->
                first(
                    CARTRIDGE
                        .IDENTIFIER
                        .eq(Titles.folded(title))
                        .and(CARTRIDGE.PUBLISHER.in("", facts.publisher()))));
  }

  private Optional<CartridgeRecord> first(Condition which) {
    return db.selectFrom(CARTRIDGE).where(which).orderBy(CARTRIDGE.ID).limit(1).fetchOptional();
  }

  private static String makerIdentifier(CartridgeFacts facts) {
    String id = facts.identifier().replaceFirst("^(zephyrmist:[0-9a-f-]+):.*", "$1");
    return id.length() < TELLING || id.length() > 200 ? "" : id;
  }

  private static String identifier(CartridgeFacts facts, String title) {
    String folded = Titles.folded(title);
    return facts.publisher().isEmpty() ? folded : folded + "\n" + Titles.folded(facts.publisher());
  }

  /** The cartridge that a package is an edition of; a new one if it is of none yet. */
  UUID of(CartridgeFacts facts, String title) {
    Optional<CartridgeRecord> known = known(facts, title);
    if (known.isEmpty()) {
      db.insertInto(CARTRIDGE)
          .set(CARTRIDGE.ID, UUID.randomUUID())
          .set(CARTRIDGE.TITLE, title)
          .set(CARTRIDGE.IDENTIFIER, identifier(facts, title))
          .set(CARTRIDGE.MAKER_IDENTIFIER, makerIdentifier(facts))
          .set(CARTRIDGE.PUBLISHER, facts.publisher())
          .onConflictDoNothing()
          .execute();
    }
    String identifier =
        known.map(CartridgeRecord::getIdentifier).orElseGet(() -> identifier(facts, title));
    return db.select(CARTRIDGE.ID)
        .from(CARTRIDGE)
        .where(CARTRIDGE.IDENTIFIER.eq(identifier))
        .forUpdate()
        .fetchSingle(CARTRIDGE.ID);
  }

  /** The master that a package was written from, if it was written here. */
  Optional<CartridgeApi.Ours> ours(CartridgeFacts facts) {
    Matcher m = OURS.matcher(facts.identifier());
    if (!m.matches()) {
      return Optional.empty();
    }
    return db.select(MASTER.ID, MASTER.CODE, coalesce(max(VERSION.NUMBER), 0))
        .from(MASTER)
        .leftJoin(VERSION)
        .on(VERSION.MASTER_ID.eq(MASTER.ID))
        .where(MASTER.ID.eq(UUID.fromString(m.group(1))))
        .groupBy(MASTER.ID)
        .fetchOptional(
            r ->
                new CartridgeApi.Ours(
                    r.value1(), r.value2(), Integer.parseInt(m.group(2)), r.value3()));
  }

  @Transactional
  void consent(UUID cartridge, boolean given, SignedIn who) {
    CartridgeRecord c =
        db.selectFrom(CARTRIDGE)
            .where(CARTRIDGE.ID.eq(cartridge))
            .forUpdate()
            .fetchOptional()
            .orElseThrow(() -> Refusal.notFound("cartridge"));
    db.update(CARTRIDGE)
        .set(CARTRIDGE.CONSENT_BY, given ? who.id() : null)
        .set(CARTRIDGE.CONSENT_AT, given ? OffsetDateTime.now(clock) : null)
        .where(CARTRIDGE.ID.eq(cartridge))
        .execute();
    events.add(
        who.id(),
        given ? "consented to the use of" : "no longer consents to the use of",
        c.getTitle(),
        "");
  }

  /** Whether it is taken anew each term, and never from a shell of the term before. */
  @Transactional
  void fresh(UUID cartridge, boolean fresh, SignedIn who) {
    String title =
        db.update(CARTRIDGE)
            .set(CARTRIDGE.FRESH_EACH_TERM, fresh)
            .where(CARTRIDGE.ID.eq(cartridge))
            .returning(CARTRIDGE.TITLE)
            .fetchOptional(CARTRIDGE.TITLE)
            .orElseThrow(() -> Refusal.notFound("cartridge"));
    events.add(
        who.id(),
        fresh ? "has taken fresh each term" : "no longer has taken fresh each term",
        title,
        "");
  }

  /**
   * Says of which cartridge an edition is, whatever its package says; it becomes the newest.
   *
   * @param cartridge none for one of its own
   */
  @Transactional
  void assign(UUID edition, Optional<UUID> cartridge, SignedIn who) {
    EditionRecord e =
        db.selectFrom(EDITION)
            .where(EDITION.ID.eq(edition))
            .forUpdate()
            .fetchOptional()
            .orElseThrow(() -> Refusal.notFound("edition"));
    CartridgeRecord from =
        db.selectFrom(CARTRIDGE).where(CARTRIDGE.ID.eq(e.getCartridgeId())).fetchSingle();
    CartridgeRecord to = cartridge.map(this::locked).orElseGet(() -> ofItsOwn(from));
    if (to.getId().equals(from.getId())) {
      throw Refusal.bad("It is an edition of that cartridge already.", "Choose another one.");
    }
    int number = 1 + db.fetchCount(EDITION, EDITION.CARTRIDGE_ID.eq(to.getId()));
    while (db.fetchExists(
        EDITION, EDITION.CARTRIDGE_ID.eq(to.getId()).and(EDITION.NUMBER.eq(number)))) {
      number++;
    }
    e.setCartridgeId(to.getId());
    e.setNumber(number);
    e.update();
    events.add(
        who.id(),
        "assigned an edition",
        from.getTitle(),
        "now edition " + number + " of " + to.getTitle(),
        "/sources/editions/" + edition);
  }

  private CartridgeRecord locked(UUID id) {
    return db.selectFrom(CARTRIDGE)
        .where(CARTRIDGE.ID.eq(id))
        .forUpdate()
        .fetchOptional()
        .orElseThrow(() -> Refusal.notFound("cartridge"));
  }

  private CartridgeRecord ofItsOwn(CartridgeRecord from) {
    UUID id = UUID.randomUUID();
    return db.insertInto(CARTRIDGE)
        .set(CARTRIDGE.ID, id)
        .set(CARTRIDGE.TITLE, from.getTitle())
        .set(CARTRIDGE.IDENTIFIER, id.toString())
        .set(CARTRIDGE.PUBLISHER, from.getPublisher())
        .returning()
        .fetchSingle();
  }
}
