package org.zephyrmist.server.people;

import static org.zephyrmist.server.db.Tables.EVENT;

import jakarta.validation.constraints.NotNull;
import java.time.OffsetDateTime;
import java.util.List;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.server.db.tables.Event;

/** The record of who did what, newest first, to be read only. */
@RestController
class RecordApi {
  private static final int PAGE = 100;
  private static final Event LINE = EVENT.as("line");
  private final DSLContext db;

  RecordApi(DSLContext db) {
    this.db = db;
  }

  record RecordLine(
      long id,
      @NotNull OffsetDateTime at,
      String person,
      @NotNull String what,
      @NotNull String subject,
      @NotNull String detail,
      String leadsTo) {}

  /**
   * A hundred lines before the given one.
   *
   * @param q words that person, deed, subject or detail hold
   */
  @GetMapping("/api/record")
  @PreAuthorize("hasRole('ADMINISTRATOR')")
  List<RecordLine> record(
      @RequestParam(required = false) Long before, @RequestParam(defaultValue = "") String q) {
    Condition earlier =
        before == null
            ? DSL.noCondition()
            : DSL.row(EVENT.AT, EVENT.ID)
                .lt(DSL.select(LINE.AT, LINE.ID).from(LINE).where(LINE.ID.eq(before)));
    Condition found =
        q.isBlank()
            ? DSL.noCondition()
            : DSL.concat(
                    DSL.coalesce(EVENT.PERSON_NAME, ""),
                    DSL.val(" "),
                    EVENT.WHAT,
                    DSL.val(" "),
                    EVENT.SUBJECT,
                    DSL.val(" "),
                    EVENT.DETAIL)
                .containsIgnoreCase(q.strip());
    return db.select(EVENT.fields())
        .from(EVENT)
        .where(earlier)
        .and(found)
        .orderBy(EVENT.AT.desc(), EVENT.ID.desc())
        .limit(PAGE)
        .fetch(
            r ->
                new RecordLine(
                    r.get(EVENT.ID),
                    r.get(EVENT.AT),
                    r.get(EVENT.PERSON_NAME),
                    r.get(EVENT.WHAT),
                    r.get(EVENT.SUBJECT),
                    r.get(EVENT.DETAIL),
                    r.get(EVENT.LEADS_TO)));
  }
}
