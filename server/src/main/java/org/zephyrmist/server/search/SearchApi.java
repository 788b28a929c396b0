package org.zephyrmist.server.search;

import static org.jooq.impl.DSL.exists;
import static org.jooq.impl.DSL.selectOne;
import static org.zephyrmist.server.db.Tables.CARTRIDGE;
import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;

import jakarta.validation.constraints.NotNull;
import java.util.ArrayList;
import java.util.List;
import org.jooq.DSLContext;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.people.SignedIn;

/** Finds by part of a name, within the person's reach. */
@RestController
class SearchApi {
  private static final int EACH = 8;
  private final DSLContext db;
  private final Reach reach;

  SearchApi(DSLContext db, Reach reach) {
    this.db = db;
    this.reach = reach;
  }

  record Hit(@NotNull String kind, @NotNull String name, @NotNull String address) {}

  @GetMapping(path = "/api/search", produces = MediaType.APPLICATION_JSON_VALUE)
  List<Hit> search(@RequestParam String q, @AuthenticationPrincipal SignedIn who) {
    String text = q.strip();
    if (text.isEmpty()) {
      return List.of();
    }
    List<Hit> hits = new ArrayList<>();
    db.select(MASTER.ID, MASTER.CODE, MASTER.TITLE)
        .from(MASTER)
        .where(reach.masters(who))
        .and(MASTER.CODE.containsIgnoreCase(text).or(MASTER.TITLE.containsIgnoreCase(text)))
        .orderBy(MASTER.CODE)
        .limit(EACH)
        .forEach(
            r ->
                hits.add(
                    new Hit(
                        "master",
                        r.value2() + " " + r.value3(),
                        "/sources/masters/" + r.value1())));
    if (who.role() != Role.INSTRUCTOR) {
      db.select(EDITION.ID, CARTRIDGE.TITLE, EDITION.NUMBER)
          .from(EDITION)
          .join(CARTRIDGE)
          .on(CARTRIDGE.ID.eq(EDITION.CARTRIDGE_ID))
          .where(CARTRIDGE.TITLE.containsIgnoreCase(text))
          .orderBy(CARTRIDGE.TITLE, EDITION.NUMBER.desc())
          .limit(EACH)
          .forEach(
              r ->
                  hits.add(
                      new Hit(
                          "cartridge",
                          r.value2() + ", edition " + r.value3(),
                          "/sources/editions/" + r.value1())));
    }
    db.select(SECTION.ID, SECTION.CODE, SECTION.TITLE)
        .from(SECTION)
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
        .orderBy(SECTION.CODE, SECTION.ID)
        .limit(EACH)
        .forEach(
            r ->
                hits.add(
                    new Hit("section", r.value2() + " " + r.value3(), "/sections/" + r.value1())));
    return hits;
  }
}
