package org.zephyrmist.server.search;

import static org.jooq.impl.DSL.exists;
import static org.jooq.impl.DSL.selectOne;
import static org.jooq.impl.DSL.val;
import static org.zephyrmist.server.db.Tables.CARTRIDGE;
import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;
import static org.zephyrmist.server.db.Tables.TERM;
import static org.zephyrmist.server.db.Tables.TREE_ITEM;

import jakarta.validation.constraints.NotNull;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.people.SignedIn;

/** Finds by part of a name, within the person's reach; each subject has hits of its own. */
@RestController
class SearchApi {
  private static final int EACH = 6;
  private final DSLContext db;
  private final Reach reach;
  private final Clock clock;

  SearchApi(DSLContext db, Reach reach, Clock clock) {
    this.clock = clock;
    this.db = db;
    this.reach = reach;
  }

  /** What there is to be found. */
  enum Subject {
    SECTION,
    MASTER,
    CARTRIDGE,
    ITEM
  }

  /**
   * @param beside what tells it from others of the same name: a term, an edition, a master
   */
  record Hit(
      @NotNull Subject subject,
      @NotNull String name,
      @NotNull String beside,
      @NotNull String address) {}

  @GetMapping(path = "/api/search", produces = MediaType.APPLICATION_JSON_VALUE)
  List<Hit> search(@RequestParam String q, @AuthenticationPrincipal SignedIn who) {
    String text = q.strip();
    if (text.isEmpty()) {
      return List.of();
    }
    List<Hit> hits = new ArrayList<>(sections(text, who));
    hits.addAll(masters(text, who));
    if (who.role() != Role.INSTRUCTOR) {
      hits.addAll(cartridges(text));
      hits.addAll(items(text, who));
    }
    return hits;
  }

  /** Those of the term that runs first, then the newest. */
  private List<Hit> sections(String text, SignedIn who) {
    LocalDate today = LocalDate.now(clock);
    return db.select(SECTION.ID, SECTION.CODE, SECTION.TITLE, TERM.TITLE)
        .from(SECTION)
        .leftJoin(TERM)
        .on(TERM.ID.eq(SECTION.TERM_ID))
        .where(reach.sections(who))
        .and(
            SECTION
                .CODE
                .containsIgnoreCase(text)
                .or(SECTION.TITLE.containsIgnoreCase(text))
                .or(
                    exists(
                        selectOne()
                            .from(SECTION_INSTRUCTOR)
                            .join(PERSON)
                            .on(PERSON.ID.eq(SECTION_INSTRUCTOR.PERSON_ID))
                            .where(SECTION_INSTRUCTOR.SECTION_ID.eq(SECTION.ID))
                            .and(PERSON.NAME.containsIgnoreCase(text)))))
        .orderBy(
            DSL.when(val(today).between(TERM.FIRST_DAY, TERM.LAST_DAY), 0).otherwise(1),
            TERM.FIRST_DAY.desc().nullsLast(),
            SECTION.CODE,
            SECTION.ID)
        .limit(EACH)
        .fetch(
            r ->
                new Hit(
                    Subject.SECTION,
                    r.value2() + " " + r.value3(),
                    Objects.requireNonNullElse(r.value4(), "no term"),
                    "/sections/" + r.value1()));
  }

  private List<Hit> masters(String text, SignedIn who) {
    return db.select(MASTER.ID, MASTER.CODE, MASTER.TITLE)
        .from(MASTER)
        .where(reach.masters(who))
        .and(MASTER.CODE.containsIgnoreCase(text).or(MASTER.TITLE.containsIgnoreCase(text)))
        .orderBy(MASTER.CODE)
        .limit(EACH)
        .fetch(
            r ->
                new Hit(
                    Subject.MASTER,
                    r.value2() + " " + r.value3(),
                    "",
                    "/sources/masters/" + r.value1()));
  }

  private List<Hit> cartridges(String text) {
    return db.select(EDITION.ID, CARTRIDGE.TITLE, EDITION.NUMBER)
        .from(EDITION)
        .join(CARTRIDGE)
        .on(CARTRIDGE.ID.eq(EDITION.CARTRIDGE_ID))
        .where(CARTRIDGE.TITLE.containsIgnoreCase(text))
        .orderBy(CARTRIDGE.TITLE, EDITION.NUMBER.desc())
        .limit(EACH)
        .fetch(
            r ->
                new Hit(
                    Subject.CARTRIDGE,
                    r.value2(),
                    "edition " + r.value3(),
                    "/sources/editions/" + r.value1()));
  }

  /** Items of drafts, by their titles. */
  private List<Hit> items(String text, SignedIn who) {
    return db.select(MASTER.ID, MASTER.CODE, TREE_ITEM.ITEM_KEY, TREE_ITEM.TITLE)
        .from(TREE_ITEM)
        .join(MASTER)
        .on(MASTER.DRAFT_TREE_ID.eq(TREE_ITEM.TREE_ID))
        .where(reach.masters(who))
        .and(TREE_ITEM.TITLE.containsIgnoreCase(text))
        .orderBy(TREE_ITEM.TITLE, MASTER.CODE, TREE_ITEM.ITEM_KEY)
        .limit(EACH)
        .fetch(
            r ->
                new Hit(
                    Subject.ITEM,
                    r.value4(),
                    r.value2(),
                    "/sources/masters/" + r.value1() + "?item=" + r.value3()));
  }
}
