package org.zephyrmist.server.master;

import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.max;
import static org.jooq.impl.DSL.select;
import static org.zephyrmist.server.db.Tables.CARTRIDGE;
import static org.zephyrmist.server.db.Tables.COVERAGE_RULE;
import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.PROGRAM;
import static org.zephyrmist.server.db.Tables.TREE_ITEM;
import static org.zephyrmist.server.db.Tables.VERSION;

import jakarta.validation.constraints.NotNull;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.db.tables.Edition;
import org.zephyrmist.server.ledger.Standings;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;

/** Masters as the interface shows them; a fixed number of queries for however many. */
@Component
class MasterViews {
  private final DSLContext db;
  private final Reach reach;
  private final Standings standings;

  MasterViews(DSLContext db, Reach reach, Standings standings) {
    this.db = db;
    this.standings = standings;
    this.reach = reach;
  }

  record VersionView(
      @NotNull UUID id,
      int number,
      @NotNull String note,
      int items,
      @NotNull OffsetDateTime frozenAt,
      int sections) {}

  /**
   * A master.
   *
   * @param program whose it is; absent: the whole college's
   * @param retiredAt since when nobody is to receive it; absent: it is in use
   * @param yours whether who asks may change it
   */
  record MasterView(
      @NotNull UUID id,
      @NotNull String code,
      @NotNull String title,
      int items,
      UUID edition,
      String builtOn,
      UUID newerEdition,
      Integer newerNumber,
      @NotNull String madeBy,
      UUID program,
      @NotNull String programName,
      boolean everySection,
      boolean freshEachTerm,
      OffsetDateTime retiredAt,
      boolean yours,
      @NotNull List<VersionView> versions) {}

  List<MasterView> list(SignedIn who) {
    return views(reach.masters(who), who);
  }

  MasterView one(UUID id, SignedIn who) {
    return views(MASTER.ID.eq(id), who).get(0);
  }

  private List<MasterView> views(Condition which, SignedIn who) {
    Field<Boolean> yours = reach.mayChange(who);
    Map<UUID, List<VersionView>> versions = versions();
    Map<UUID, Integer> sizes =
        db.select(TREE_ITEM.TREE_ID, count())
            .from(TREE_ITEM)
            .join(MASTER)
            .on(MASTER.DRAFT_TREE_ID.eq(TREE_ITEM.TREE_ID))
            .groupBy(TREE_ITEM.TREE_ID)
            .fetchMap(TREE_ITEM.TREE_ID, count());
    Set<UUID> everywhere =
        new HashSet<>(
            db.select(COVERAGE_RULE.MASTER_ID)
                .from(COVERAGE_RULE)
                .where(COVERAGE_RULE.COURSE_ID.isNull())
                .and(COVERAGE_RULE.SET_ID.isNull())
                .and(COVERAGE_RULE.PROGRAM_ID.isNull())
                .fetch(COVERAGE_RULE.MASTER_ID));
    Edition newest = EDITION.as("newest");
    return db.select(MASTER.fields())
        .select(PERSON.NAME, CARTRIDGE.TITLE, EDITION.NUMBER, newest.ID, newest.NUMBER)
        .select(PROGRAM.NAME, yours)
        .from(MASTER)
        .join(PERSON)
        .on(PERSON.ID.eq(MASTER.MADE_BY))
        .leftJoin(PROGRAM)
        .on(PROGRAM.ID.eq(MASTER.PROGRAM_ID))
        .leftJoin(EDITION)
        .on(EDITION.ID.eq(MASTER.EDITION_ID))
        .leftJoin(CARTRIDGE)
        .on(CARTRIDGE.ID.eq(EDITION.CARTRIDGE_ID))
        .leftJoin(newest)
        .on(newest.CARTRIDGE_ID.eq(EDITION.CARTRIDGE_ID))
        .and(newest.NUMBER.gt(EDITION.NUMBER))
        .and(
            newest.NUMBER.eq(
                select(max(EDITION.as("any").NUMBER))
                    .from(EDITION.as("any"))
                    .where(EDITION.as("any").CARTRIDGE_ID.eq(EDITION.CARTRIDGE_ID))))
        .where(which)
        .orderBy(MASTER.CODE)
        .fetch(
            r -> {
              UUID id = r.get(MASTER.ID);
              String built = r.get(CARTRIDGE.TITLE);
              return new MasterView(
                  id,
                  r.get(MASTER.CODE),
                  r.get(MASTER.TITLE),
                  sizes.getOrDefault(r.get(MASTER.DRAFT_TREE_ID), 0),
                  r.get(MASTER.EDITION_ID),
                  built == null ? null : built + ", edition " + r.get(EDITION.NUMBER),
                  r.get(newest.ID),
                  r.get(newest.NUMBER),
                  r.get(PERSON.NAME),
                  r.get(MASTER.PROGRAM_ID),
                  Optional.ofNullable(r.get(PROGRAM.NAME)).orElse(""),
                  everywhere.contains(id),
                  r.get(MASTER.FRESH_EACH_TERM),
                  r.get(MASTER.RETIRED_AT),
                  r.get(yours),
                  versions.getOrDefault(id, List.of()));
            });
  }

  private Map<UUID, List<VersionView>> versions() {
    Map<UUID, Integer> held = standings.sectionsByVersion();
    Map<UUID, List<VersionView>> all = new HashMap<>();
    db.selectFrom(VERSION)
        .orderBy(VERSION.NUMBER)
        .forEach(
            v ->
                all.computeIfAbsent(v.getMasterId(), k -> new ArrayList<>())
                    .add(
                        new VersionView(
                            v.getId(),
                            v.getNumber(),
                            v.getNote(),
                            v.getItems(),
                            v.getFrozenAt(),
                            held.getOrDefault(v.getId(), 0))));
    return all;
  }
}
