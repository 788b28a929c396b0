package org.zephyrmist.server.master;

import static org.zephyrmist.server.db.Tables.COVERAGE_RULE;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.MASTER_KEEPER;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.TREE;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.time.Clock;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.ledger.Standings;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** What a master is called, whose it is, who else changes it, and how it ends. */
@Component
class MasterLife {
  private final DSLContext db;
  private final Reach reach;
  private final Standings standings;
  private final Events events;
  private final Clock clock;

  MasterLife(DSLContext db, Reach reach, Standings standings, Events events, Clock clock) {
    this.standings = standings;
    this.db = db;
    this.reach = reach;
    this.events = events;
    this.clock = clock;
  }

  /** What one is called from now on, and whose it is; of no program: the whole college's. */
  @Transactional
  void call(MasterRecord m, String code, String title, Optional<UUID> program, SignedIn who) {
    if (db.fetchExists(MASTER, MASTER.CODE.eq(code).and(MASTER.ID.ne(m.getId())))) {
      throw new Refusal(
          HttpStatus.CONFLICT, "There is a master " + code + " already.", "Choose another code.");
    }
    boolean stays = program.equals(Optional.ofNullable(m.getProgramId()));
    if (!stays && program.isEmpty() && !reach.everything(who)) {
      throw new Refusal(
          HttpStatus.FORBIDDEN,
          "Only who reaches the whole college gives it a master.",
          "Choose one of your programs, or ask an administrator.");
    }
    Optional<UUID> whose = stays ? program : program.flatMap(p -> reach.bound(program, who));
    db.update(MASTER)
        .set(MASTER.CODE, code)
        .set(MASTER.TITLE, title)
        .set(MASTER.PROGRAM_ID, whose.orElse(null))
        .where(MASTER.ID.eq(m.getId()))
        .execute();
    events.add(
        who.id(),
        "changed what is called",
        m.getCode(),
        code + " " + title + (stays ? "" : ", of another program"),
        page(m));
  }

  /** Sections that hold it in terms that are not over, by their codes. */
  List<Standings.Holder> holders(UUID master, Condition sections) {
    return standings.holders(master, LocalDate.now(clock), sections);
  }

  /** Nobody is to receive it any more; what stands in shells stays there. */
  @Transactional
  void retire(MasterRecord m, SignedIn who) {
    db.update(MASTER)
        .set(MASTER.RETIRED_AT, OffsetDateTime.now(clock))
        .where(MASTER.ID.eq(m.getId()))
        .and(MASTER.RETIRED_AT.isNull())
        .execute();
    int hold = holders(m.getId(), DSL.noCondition()).size();
    events.add(who.id(), "retired", m.getCode(), hold + " sections hold it", page(m));
  }

  @Transactional
  void bringBack(MasterRecord m, SignedIn who) {
    db.update(MASTER).setNull(MASTER.RETIRED_AT).where(MASTER.ID.eq(m.getId())).execute();
    events.add(who.id(), "brought back into use", m.getCode(), m.getTitle(), page(m));
  }

  /** Deletes one that nothing ever held; what its items came from stays. */
  @Transactional
  void delete(MasterRecord m, SignedIn who) {
    db.selectOne().from(MASTER).where(MASTER.ID.eq(m.getId())).forUpdate().fetch();
    var versions = db.select(VERSION.ID).from(VERSION).where(VERSION.MASTER_ID.eq(m.getId()));
    if (db.fetchExists(DELIVERY, DELIVERY.VERSION_ID.in(versions))) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          m.getCode() + " was planned for sections or delivered to them.",
          "Retire it instead: then nobody receives it, and the record of those sections stays true.");
    }
    List<UUID> trees = new ArrayList<>(List.of(m.getDraftTreeId()));
    trees.addAll(
        db.select(VERSION.TREE_ID)
            .from(VERSION)
            .where(VERSION.MASTER_ID.eq(m.getId()))
            .fetch(VERSION.TREE_ID));
    db.deleteFrom(COVERAGE_RULE).where(COVERAGE_RULE.MASTER_ID.eq(m.getId())).execute();
    db.deleteFrom(VERSION).where(VERSION.MASTER_ID.eq(m.getId())).execute();
    db.deleteFrom(MASTER).where(MASTER.ID.eq(m.getId())).execute();
    db.deleteFrom(TREE).where(TREE.ID.in(trees)).execute();
    events.add(who.id(), "deleted the master", m.getCode(), m.getTitle());
  }

  /** Who changes a master of the college beside those who reach all of it, by name. */
  List<Keeper> keepers(UUID master) {
    return db.select(PERSON.ID, PERSON.NAME)
        .from(MASTER_KEEPER)
        .join(PERSON)
        .on(PERSON.ID.eq(MASTER_KEEPER.PERSON_ID))
        .where(MASTER_KEEPER.MASTER_ID.eq(master))
        .orderBy(PERSON.NAME)
        .fetch(r -> new Keeper(r.value1(), r.value2()));
  }

  record Keeper(UUID id, String name) {}

  /** Exactly these from now on. */
  @Transactional
  void keepers(MasterRecord m, Set<UUID> people, SignedIn who) {
    var able = PERSON.ID.in(people).and(PERSON.ROLE.in(Role.COORDINATOR, Role.DESIGNER));
    if (db.fetchCount(PERSON, able) < people.size()) {
      throw Refusal.bad(
          "Somebody who was named is neither coordinator nor designer.", "Name those who are.");
    }
    db.deleteFrom(MASTER_KEEPER).where(MASTER_KEEPER.MASTER_ID.eq(m.getId())).execute();
    db.insertInto(MASTER_KEEPER)
        .select(db.select(DSL.val(m.getId()), PERSON.ID).from(PERSON).where(able))
        .execute();
    String names = String.join(", ", keepers(m.getId()).stream().map(Keeper::name).toList());
    events.add(
        who.id(), "named who changes", m.getCode(), names.isEmpty() ? "nobody" : names, page(m));
  }

  private static String page(MasterRecord m) {
    return "/sources/masters/" + m.getId();
  }
}
