package org.zephyrmist.server.master;

import static org.zephyrmist.server.db.Tables.COVERAGE_RULE;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.MASTER_OFF;
import static org.zephyrmist.server.db.Tables.TREE;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.OffRule;
import org.zephyrmist.core.tree.Comparison;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.MasterOffRecord;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.db.tables.records.VersionRecord;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Makes masters, freezes and compares their versions. */
@Component
public class Masters {
  private final DSLContext db;
  private final Trees trees;
  private final Reach reach;
  private final Clock clock;
  private final Events events;
  private final Consents consents;
  private final Ready ready;

  Masters(
      DSLContext db,
      Trees trees,
      Reach reach,
      Clock clock,
      Events events,
      Consents consents,
      Ready ready) {
    this.ready = ready;
    this.consents = consents;
    this.db = db;
    this.trees = trees;
    this.reach = reach;
    this.clock = clock;
    this.events = events;
  }

  /**
   * A master that this person may change: who may see one may not for that.
   *
   * @throws Refusal also if it is retired
   */
  public MasterRecord toChange(UUID id, SignedIn who) {
    MasterRecord m = rightful(id, who);
    if (m.getRetiredAt() != null) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          m.getCode() + " is retired: nothing of it changes.",
          "Bring it back into use first.");
    }
    return m;
  }

  /** The same, retired or not. */
  MasterRecord rightful(UUID id, SignedIn who) {
    MasterRecord m = get(id, who);
    if (!db.fetchExists(MASTER, MASTER.ID.eq(id).and(reach.changes(who)))) {
      throw new Refusal(
          HttpStatus.FORBIDDEN,
          m.getCode() + " is the whole college's.",
          "An administrator changes it, or names you among those who do.");
    }
    return m;
  }

  /** A master this person may see. */
  public MasterRecord get(UUID id, SignedIn who) {
    return db.selectFrom(MASTER)
        .where(MASTER.ID.eq(id))
        .and(reach.masters(who))
        .fetchOptional()
        .orElseThrow(() -> Refusal.notFound("master"));
  }

  /**
   * A new master.
   *
   * @param edition whose content it starts with; none for an empty one
   * @param program whose it is; none: the whole college's
   * @param courses whose sections are expected to hold it; none for all sections of the program
   */
  @Transactional
  public UUID make(
      String code,
      String title,
      Optional<UUID> program,
      Optional<UUID> edition,
      List<UUID> courses,
      SignedIn who) {
    free(code);
    UUID tree = edition.map(e -> trees.copyOfEdition(editionTree(e), e)).orElseGet(trees::create);
    UUID id = keep(code, title, program, edition, tree, courses.isEmpty() ? "c" : "m", who);
    if (courses.isEmpty()) {
      rule(id, null, program);
    }
    courses.forEach(c -> rule(id, c, Optional.empty()));
    return id;
  }

  /**
   * A master that came from elsewhere and is expected nowhere yet.
   *
   * @param tree its draft
   */
  @Transactional
  public UUID takeIn(String code, String title, Optional<UUID> program, UUID tree, SignedIn who) {
    free(code);
    return keep(code, title, program, Optional.empty(), tree, "m", who);
  }

  /** A code that no master has: this one, or this one with a number. */
  public String unused(String code) {
    String plain = code.isBlank() ? "Archive" : code.substring(0, Math.min(code.length(), 34));
    Set<String> taken =
        db.select(MASTER.CODE)
            .from(MASTER)
            .where(MASTER.CODE.startsWith(plain))
            .fetchSet(MASTER.CODE);
    return IntStream.iterate(1, n -> n + 1)
        .mapToObj(n -> n == 1 ? plain : plain + " (" + n + ")")
        .filter(c -> !taken.contains(c))
        .findFirst()
        .orElseThrow();
  }

  private void free(String code) {
    if (db.fetchExists(MASTER, MASTER.CODE.eq(code))) {
      throw new Refusal(
          HttpStatus.CONFLICT, "There is a master " + code + " already.", "Choose another code.");
    }
  }

  private UUID keep(
      String code,
      String title,
      Optional<UUID> program,
      Optional<UUID> edition,
      UUID tree,
      String order,
      SignedIn who) {
    UUID id = UUID.randomUUID();
    db.insertInto(MASTER)
        .set(MASTER.ID, id)
        .set(MASTER.CODE, code)
        .set(MASTER.TITLE, title)
        .set(MASTER.PROGRAM_ID, program.orElse(null))
        .set(MASTER.DRAFT_TREE_ID, tree)
        .set(MASTER.EDITION_ID, edition.orElse(null))
        .set(MASTER.SHELL_ORDER, order)
        .set(MASTER.MADE_BY, who.id())
        .set(MASTER.MADE_AT, OffsetDateTime.now(clock))
        .execute();
    events.add(who.id(), "made master", code, title, page(id));
    return id;
  }

  /** Whether it is taken anew each term, and never from a shell of the term before. */
  @Transactional
  public void fresh(UUID id, boolean fresh, SignedIn who) {
    MasterRecord m = get(id, who);
    db.update(MASTER).set(MASTER.FRESH_EACH_TERM, fresh).where(MASTER.ID.eq(id)).execute();
    events.add(
        who.id(),
        fresh ? "has taken fresh each term" : "no longer has taken fresh each term",
        m.getCode(),
        m.getTitle(),
        page(id));
  }

  /** It was made from the shell of a section. */
  public void madeFrom(UUID master, UUID section) {
    db.update(MASTER).set(MASTER.MADE_FROM, section).where(MASTER.ID.eq(master)).execute();
  }

  private void rule(UUID master, UUID course, Optional<UUID> program) {
    db.insertInto(COVERAGE_RULE)
        .set(COVERAGE_RULE.ID, UUID.randomUUID())
        .set(COVERAGE_RULE.MASTER_ID, master)
        .set(COVERAGE_RULE.COURSE_ID, course)
        .set(COVERAGE_RULE.PROGRAM_ID, program.orElse(null))
        .execute();
  }

  private UUID editionTree(UUID edition) {
    return db.select(EDITION.TREE_ID)
        .from(EDITION)
        .where(EDITION.ID.eq(edition))
        .fetchOptional(EDITION.TREE_ID)
        .orElseThrow(() -> Refusal.notFound("edition"));
  }

  /** Freezes the draft as the next version. */
  @Transactional
  public UUID freeze(UUID master, String note, SignedIn who) {
    MasterRecord m = get(master, who);
    db.selectOne().from(MASTER).where(MASTER.ID.eq(master)).forUpdate().fetch();
    int items = trees.size(m.getDraftTreeId());
    if (items == 0) {
      throw Refusal.bad("The draft is empty.", "Add an item before you freeze a version.");
    }
    List<VersionRecord> versions = versions(master);
    int newest = versions.isEmpty() ? 0 : versions.get(versions.size() - 1).getNumber();
    Optional<MasterOffRecord> off =
        db.selectFrom(MASTER_OFF).where(MASTER_OFF.MASTER_ID.eq(master)).fetchOptional();
    VersionRecord frozen = db.newRecord(VERSION);
    frozen.setOffRule(off.map(MasterOffRecord::getRule).orElse(OffRule.NEXT_TEACHING_DAY));
    frozen.setOffByKind(off.map(MasterOffRecord::getByKind).orElse(JSONB.valueOf("{}")));
    if (newest > 0 && !moved(versions.get(versions.size() - 1), frozen, m.getDraftTreeId())) {
      throw Refusal.bad(
          "Nothing has changed since version " + newest + ".",
          "Change the draft first, or deliver version " + newest + ".");
    }
    consents.check(m.getDraftTreeId());
    guarded(m);
    int number = newest + 1;
    UUID id = UUID.randomUUID();
    frozen.setId(id);
    frozen.setMasterId(master);
    frozen.setNumber(number);
    frozen.setTreeId(trees.copy(m.getDraftTreeId()));
    frozen.setNote(note);
    frozen.setItems(items);
    frozen.setFrozenBy(who.id());
    frozen.setFrozenAt(OffsetDateTime.now(clock));
    frozen.insert();
    events.add(who.id(), "froze", m.getCode() + ", version " + number, note, page(m.getId()));
    return id;
  }

  /** Whether a draft says anything else than a version, of its items or of days off. */
  private boolean moved(VersionRecord last, VersionRecord now, UUID draft) {
    return !changes(last.getTreeId(), draft).isEmpty()
        || last.getOffRule() != now.getOffRule()
        || !last.getOffByKind().equals(now.getOffByKind());
  }

  private void guarded(MasterRecord m) {
    List<Node> refused = ready.guard(m).refuses(trees.tree(m.getDraftTreeId()));
    if (!refused.isEmpty()) {
      int more = refused.size() - 1;
      throw Refusal.bad(
          "This master is not meant to hold “"
              + refused.get(0).title()
              + (more == 0 ? "”." : "” and " + more + " more."),
          "Take it out, or change what this master may hold.");
    }
  }

  /** Says what a master may hold. */
  @Transactional
  public void guard(MasterRecord m, SortedMap<Kind, Integer> most, SignedIn who) {
    db.update(MASTER)
        .set(MASTER.GUARD, ready.stored(most))
        .where(MASTER.ID.eq(m.getId()))
        .execute();
    String kinds = most.keySet().stream().map(Kind::words).collect(Collectors.joining(", "));
    events.add(
        who.id(), "limited", m.getCode(), kinds.isEmpty() ? "anything" : kinds, page(m.getId()));
  }

  /** Deletes a version that no delivery, and so no section, has ever used. */
  @Transactional
  public void delete(MasterRecord m, int number, SignedIn who) {
    if (number < 1) {
      throw Refusal.bad("The draft itself is no version.", "Name a version from 1 on.");
    }
    VersionRecord v =
        versions(m.getId()).stream()
            .filter(x -> x.getNumber() == number)
            .findFirst()
            .orElseThrow(() -> Refusal.notFound("version"));
    if (db.fetchExists(DELIVERY, DELIVERY.VERSION_ID.eq(v.getId()))) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "Version " + number + " was planned or delivered.",
          "It stays, so that the record of those sections stays true.");
    }
    v.delete();
    db.deleteFrom(TREE).where(TREE.ID.eq(v.getTreeId())).execute();
    events.add(
        who.id(), "deleted", m.getCode() + ", version " + number, v.getNote(), page(m.getId()));
  }

  private static String page(UUID master) {
    return "/sources/masters/" + master;
  }

  /** Oldest first. */
  public List<VersionRecord> versions(UUID master) {
    return db.selectFrom(VERSION)
        .where(VERSION.MASTER_ID.eq(master))
        .orderBy(VERSION.NUMBER)
        .fetch();
  }

  /** The tree of a version by number; 0 means the draft. */
  public UUID tree(MasterRecord m, int number) {
    return number == 0
        ? m.getDraftTreeId()
        : db.select(VERSION.TREE_ID)
            .from(VERSION)
            .where(VERSION.MASTER_ID.eq(m.getId()))
            .and(VERSION.NUMBER.eq(number))
            .fetchOptional(VERSION.TREE_ID)
            .orElseThrow(() -> Refusal.notFound("version"));
  }

  public List<Comparison.Change> changes(UUID older, UUID newer) {
    return Comparison.of(trees.tree(older), trees.tree(newer));
  }
}
