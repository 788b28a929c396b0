package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.SECTION;

import java.time.Clock;
import java.time.Duration;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.db.tables.records.DeliveryLineRecord;
import org.zephyrmist.server.db.tables.records.DeliveryRecord;
import org.zephyrmist.server.db.tables.records.SectionRecord;

/** Lines as they are stored: who works on them, and how they stand. */
@Component
class Lines {
  private final DSLContext db;
  private final Clock clock;

  Lines(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /** A line with all that belongs to it. */
  record Open(DeliveryLineRecord line, DeliveryRecord delivery, SectionRecord section) {}

  Open open(UUID line) {
    return db.select()
        .from(DELIVERY_LINE)
        .join(DELIVERY)
        .on(DELIVERY.ID.eq(DELIVERY_LINE.DELIVERY_ID))
        .join(SECTION)
        .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
        .where(DELIVERY_LINE.ID.eq(line))
        .fetchSingle(r -> new Open(r.into(DELIVERY_LINE), r.into(DELIVERY), r.into(SECTION)));
  }

  /** A line that waits for its turn and has no task on the queue. */
  record Stray(UUID line, boolean confirmed) {}

  List<Stray> strays() {
    return db.resultQuery(
            "select l.id, d.confirmed_at is not null as confirmed from delivery_line l"
                + " join delivery d on d.id = l.delivery_id"
                + " where l.state in ('TO_PLAN', 'WAITING', 'RUNNING', 'TRYING_AGAIN')"
                + " and not exists (select 1 from scheduled_tasks t"
                + "   where t.task_instance = l.id::text and t.task_name in"
                + "     ('plan-line', 'run-line'))")
        .fetch(r -> new Stray(r.get(0, UUID.class), r.get(1, Boolean.class)));
  }

  /**
   * Takes the section for this line; false while another line has it. A worker that took it for the
   * same line before, and was thought dead, can write no more.
   */
  boolean claim(UUID section, UUID line, UUID token) {
    return db.update(SECTION)
            .set(SECTION.BUSY_LINE, line)
            .set(SECTION.BUSY_TOKEN, token)
            .where(SECTION.ID.eq(section))
            .and(SECTION.BUSY_LINE.isNull().or(SECTION.BUSY_LINE.eq(line)))
            .execute()
        > 0;
  }

  void release(UUID section, UUID token) {
    db.update(SECTION)
        .setNull(SECTION.BUSY_LINE)
        .setNull(SECTION.BUSY_TOKEN)
        .where(SECTION.ID.eq(section))
        .and(SECTION.BUSY_TOKEN.eq(token))
        .execute();
  }

  /** Frees sections whose worker died after its line had ended. */
  void releaseLeft() {
    db.query(
            "update section set busy_line = null, busy_token = null where busy_line is not null"
                + " and not exists (select 1 from scheduled_tasks t"
                + "   where t.task_instance = busy_line::text)")
        .execute();
  }

  /** Another worker has taken over; whatever this one was about to note is not its business. */
  static final class TakenOver extends RuntimeException {
    TakenOver() {
      super("Another server has taken this line over");
    }
  }

  /** Makes sure, within the running transaction, that the section is still this worker's. */
  void hold(SectionRecord section) {
    boolean mine =
        db.selectOne()
            .from(SECTION)
            .where(SECTION.ID.eq(section.getId()))
            .and(SECTION.BUSY_TOKEN.eq(section.getBusyToken()))
            .forUpdate()
            .fetchOptional()
            .isPresent();
    if (!mine) {
      throw new TakenOver();
    }
  }

  void activity(UUID line, LineState state, String activity) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, state.name())
        .set(DELIVERY_LINE.ACTIVITY, activity)
        .setNull(DELIVERY_LINE.REASON)
        .setNull(DELIVERY_LINE.REMEDY)
        .setNull(DELIVERY_LINE.NEXT_TRY)
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }

  void tryAgain(UUID line, int attempts, Duration pause, String reason, String remedy) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, LineState.TRYING_AGAIN.name())
        .set(DELIVERY_LINE.ATTEMPTS, attempts)
        .set(DELIVERY_LINE.NEXT_TRY, OffsetDateTime.now(clock).plus(pause))
        .set(DELIVERY_LINE.REASON, reason)
        .set(DELIVERY_LINE.REMEDY, remedy)
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }

  void needsPerson(UUID line, String reason, String remedy) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, LineState.NEEDS_PERSON.name())
        .set(DELIVERY_LINE.ACTIVITY, "")
        .set(DELIVERY_LINE.ATTEMPTS, 0)
        .setNull(DELIVERY_LINE.NEXT_TRY)
        .set(DELIVERY_LINE.REASON, reason)
        .set(DELIVERY_LINE.REMEDY, remedy)
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }

  void done(UUID line, String activity) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, LineState.DONE.name())
        .set(DELIVERY_LINE.ACTIVITY, activity)
        .set(DELIVERY_LINE.ATTEMPTS, 0)
        .setNull(DELIVERY_LINE.REASON)
        .setNull(DELIVERY_LINE.REMEDY)
        .setNull(DELIVERY_LINE.NEXT_TRY)
        .set(DELIVERY_LINE.FINISHED_AT, OffsetDateTime.now(clock))
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }
}
