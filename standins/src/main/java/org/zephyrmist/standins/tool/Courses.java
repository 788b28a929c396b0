package org.zephyrmist.standins.tool;

import static org.zephyrmist.standins.db.Tables.TOOL_COURSE;
import static org.zephyrmist.standins.db.Tables.TOOL_KEY;
import static org.zephyrmist.standins.db.Tables.TOOL_TICKET;
import static org.zephyrmist.standins.db.Tables.TOOL_TIE;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.standins.db.tables.records.ToolCourseRecord;
import org.zephyrmist.standins.db.tables.records.ToolTicketRecord;
import org.zephyrmist.standins.db.tables.records.ToolTieRecord;

/** Courses on a tool's side, and which class comes to which. */
@Component
class Courses {
  private final DSLContext db;
  private final Clock clock;

  Courses(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  Optional<ToolTieRecord> tie(String host, String context) {
    return db.selectFrom(TOOL_TIE)
        .where(TOOL_TIE.HOST.eq(host))
        .and(TOOL_TIE.CONTEXT.eq(context))
        .fetchOptional();
  }

  boolean exists(String host, String course) {
    return db.fetchExists(TOOL_COURSE, TOOL_COURSE.HOST.eq(host).and(TOOL_COURSE.ID.eq(course)));
  }

  Optional<String> ofKey(String host, String key) {
    return db.select(TOOL_KEY.COURSE)
        .from(TOOL_KEY)
        .where(TOOL_KEY.HOST.eq(host))
        .and(TOOL_KEY.KEY.eq(key))
        .fetchOptional(TOOL_KEY.COURSE)
        .filter(c -> !c.isEmpty());
  }

  List<ToolCourseRecord> newest(String host) {
    return db.selectFrom(TOOL_COURSE)
        .where(TOOL_COURSE.HOST.eq(host))
        .orderBy(TOOL_COURSE.MADE_AT.desc(), TOOL_COURSE.ID)
        .limit(20)
        .fetch();
  }

  /** What an instructor who was let in may answer once. */
  String ticket(String host, String context, String title, String back) {
    String id = UUID.randomUUID().toString();
    db.insertInto(TOOL_TICKET)
        .values(id, host, context, title, back, OffsetDateTime.now(clock))
        .execute();
    return id;
  }

  /** Not used yet. */
  Optional<ToolTicketRecord> open(String ticket) {
    return db.selectFrom(TOOL_TICKET).where(TOOL_TICKET.ID.eq(ticket)).fetchOptional();
  }

  Optional<ToolTicketRecord> used(String ticket) {
    return db.deleteFrom(TOOL_TICKET).where(TOOL_TICKET.ID.eq(ticket)).returning().fetchOptional();
  }

  /**
   * @param course one that is there; empty for a new one
   * @return the course that the class comes to from now on
   */
  @Transactional
  String pair(ToolTicketRecord t, String course) {
    String id = course;
    if (course.isEmpty()) {
      id = t.getHost().substring(0, 2) + "-" + UUID.randomUUID().toString().substring(0, 8);
      make(t.getHost(), id, t.getTitle(), "");
    }
    db.insertInto(TOOL_TIE, TOOL_TIE.HOST, TOOL_TIE.CONTEXT, TOOL_TIE.COURSE_ID)
        .values(t.getHost(), t.getContext(), id)
        .onConflict(TOOL_TIE.HOST, TOOL_TIE.CONTEXT)
        .doUpdate()
        .set(TOOL_TIE.COURSE_ID, id)
        .execute();
    return id;
  }

  void tie(String host, List<KnobApi.Tie> all) {
    OffsetDateTime now = OffsetDateTime.now(clock);
    db.batch(
            all.stream()
                .map(
                    t -> {
                      boolean course = t.course() != null && !t.course().isEmpty();
                      return db.insertInto(TOOL_TIE)
                          .set(TOOL_TIE.HOST, host)
                          .set(TOOL_TIE.CONTEXT, t.context())
                          .set(TOOL_TIE.COURSE_ID, course ? t.course() : null)
                          .set(TOOL_TIE.AGREED_AT, course ? null : now)
                          .set(TOOL_TIE.READY_AT, course ? null : now)
                          .onConflictDoNothing();
                    })
                .toList())
        .execute();
  }

  void make(String host, String id, String title, String term) {
    db.insertInto(TOOL_COURSE)
        .values(id, host, title, term, OffsetDateTime.now(clock))
        .onConflictDoNothing()
        .execute();
  }

  void agree(ToolTicketRecord t, int waitMinutes) {
    OffsetDateTime now = OffsetDateTime.now(clock);
    db.insertInto(TOOL_TIE, TOOL_TIE.HOST, TOOL_TIE.CONTEXT, TOOL_TIE.AGREED_AT, TOOL_TIE.READY_AT)
        .values(t.getHost(), t.getContext(), now, now.plusMinutes(waitMinutes))
        .onConflictDoNothing()
        .execute();
  }
}
