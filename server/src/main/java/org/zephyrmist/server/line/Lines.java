package org.zephyrmist.server.line;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.SECTION;

import java.time.Clock;
import java.time.Duration;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.StudentCounts;
import org.zephyrmist.core.delivery.WaitsFor;
import org.zephyrmist.core.edit.Edit;
import org.zephyrmist.server.db.tables.records.DeliveryLineRecord;
import org.zephyrmist.server.db.tables.records.DeliveryRecord;
import org.zephyrmist.server.ledger.Ledger;
import org.zephyrmist.server.shell.Shells;
import tools.jackson.databind.json.JsonMapper;

/** Lines as they are stored: who works on them, and how they stand. */
@Component
class Lines {
  private final DSLContext db;
  private final Shells shells;
  private final Clock clock;
  private final JsonMapper json;
  private final Decided decided;

  Lines(DSLContext db, Shells shells, Decided decided, Clock clock, JsonMapper json) {
    this.decided = decided;
    this.json = json;
    this.db = db;
    this.shells = shells;
    this.clock = clock;
  }

  Line get(UUID line) {
    return find(line).orElseThrow(() -> new IllegalStateException("No line " + line));
  }

  /** None if its plan was thrown away. */
  Optional<Line> find(UUID line) {
    return db.select(DELIVERY_LINE.fields())
        .select(DELIVERY.fields())
        .select(SECTION.BUSY_TOKEN)
        .from(DELIVERY_LINE)
        .join(DELIVERY)
        .on(DELIVERY.ID.eq(DELIVERY_LINE.DELIVERY_ID))
        .join(SECTION)
        .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
        .where(DELIVERY_LINE.ID.eq(line))
        .fetchOptional(
            r ->
                line(
                    r.into(DELIVERY_LINE),
                    r.into(DELIVERY),
                    Optional.ofNullable(r.get(SECTION.BUSY_TOKEN))));
  }

  private Line line(DeliveryLineRecord l, DeliveryRecord d, Optional<UUID> token) {
    return new Line(
        l.getId(),
        d.getId(),
        d.getVersionId(),
        json.readValue(d.getParts().data(), ChosenParts.class).choice(),
        new Choices(d.getClash(), d.getTwin(), d.getArrival(), d.getDates())
            .with(d.getEmptied())
            .with(d.getOnto())
            .with(d.getWeeks())
            .with(json.readValue(d.getByKind().data(), Choices.ByKind.class))
            .with(decided.of(d.getId())),
        Optional.ofNullable(d.getConfirmedBy()).orElse(d.getMadeBy()),
        Optional.ofNullable(d.getTakesBack()),
        Optional.ofNullable(d.getEdit()).map(e -> json.readValue(e.data(), Edit.class)),
        d.getTakesBack() != null && editing(d.getTakesBack()),
        Optional.ofNullable(d.getAtOnce()),
        Optional.ofNullable(d.getOrderId()),
        d.getPlace(),
        l.getState(),
        l.getAttempts(),
        l.getSame(),
        l.getEmptied(),
        Optional.ofNullable(l.getReadTag()),
        token,
        shells.of(l.getSectionId()));
  }

  private boolean editing(UUID delivery) {
    return db.fetchExists(DELIVERY, DELIVERY.ID.eq(delivery).and(DELIVERY.EDIT.isNotNull()));
  }

  /**
   * Lines that wait for their turn and have no task on the queue.
   *
   * @param confirmed whether those of confirmed deliveries, or the others
   */
  List<UUID> strays(boolean confirmed) {
    return db.select(DELIVERY_LINE.ID)
        .from(DELIVERY_LINE)
        .join(DELIVERY)
        .on(DELIVERY.ID.eq(DELIVERY_LINE.DELIVERY_ID))
        .where(DELIVERY_LINE.STATE.in(LineState.ON_THE_QUEUE))
        .and(confirmed ? DELIVERY.CONFIRMED_AT.isNotNull() : DELIVERY.CONFIRMED_AT.isNull())
        .and(
            "not exists (select 1 from scheduled_tasks t where t.task_instance ="
                + " delivery_line.id::text and t.task_name in ('plan-line', 'run-line'))")
        .fetch(DELIVERY_LINE.ID);
  }

  /**
   * Takes the section for this line; false while another line has it. A worker that took it for the
   * same line before, and was thought dead, can write no more.
   */
  @Transactional
  public boolean claim(Line line, UUID token) {
    return line.atOnce().map(most -> fewer(line, most)).orElse(true)
        && db.update(SECTION)
                .set(SECTION.BUSY_LINE, line.id())
                .set(SECTION.BUSY_TOKEN, token)
                .where(SECTION.ID.eq(line.section()))
                .and(SECTION.BUSY_LINE.isNull().or(SECTION.BUSY_LINE.eq(line.id())))
                .execute()
            > 0;
  }

  /** Whether fewer lines of its delivery than so many are in work; nobody else counts meanwhile. */
  private boolean fewer(Line line, int most) {
    db.selectOne().from(DELIVERY).where(DELIVERY.ID.eq(line.delivery())).forUpdate().fetch();
    return most
        > db.fetchCount(
            db.selectOne()
                .from(SECTION)
                .join(DELIVERY_LINE)
                .on(DELIVERY_LINE.ID.eq(SECTION.BUSY_LINE))
                .where(DELIVERY_LINE.DELIVERY_ID.eq(line.delivery()))
                .and(DELIVERY_LINE.ID.ne(line.id())));
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
  void hold(Line line) {
    boolean mine =
        db.selectOne()
            .from(SECTION)
            .where(SECTION.ID.eq(line.section()))
            .and(SECTION.BUSY_TOKEN.eq(line.token().orElseThrow(TakenOver::new)))
            .forUpdate()
            .fetchOptional()
            .isPresent();
    if (!mine) {
      throw new TakenOver();
    }
  }

  void activity(UUID line, LineState state, String activity) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, state)
        .set(DELIVERY_LINE.ACTIVITY, activity)
        .setNull(DELIVERY_LINE.REASON)
        .setNull(DELIVERY_LINE.REMEDY)
        .setNull(DELIVERY_LINE.NEXT_TRY)
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }

  void tryAgain(UUID line, int attempts, Duration pause, String reason, String remedy) {
    again(line, LineState.TRYING_AGAIN, attempts, pause, reason, remedy);
  }

  /** The platform has taken what was written, and it is looked at again whether it is there. */
  void accepted(UUID line, Duration pause, String reason, String remedy) {
    again(line, LineState.ACCEPTED, 0, pause, reason, remedy);
  }

  private void again(
      UUID line, LineState state, int attempts, Duration pause, String reason, String remedy) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, state)
        .set(DELIVERY_LINE.ATTEMPTS, attempts)
        .set(DELIVERY_LINE.NEXT_TRY, OffsetDateTime.now(clock).plus(pause))
        .set(DELIVERY_LINE.REASON, reason)
        .set(DELIVERY_LINE.REMEDY, remedy)
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }

  void needsPerson(UUID line, String reason, String remedy) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, LineState.NEEDS_PERSON)
        .set(DELIVERY_LINE.ACTIVITY, "")
        .set(DELIVERY_LINE.ATTEMPTS, 0)
        .setNull(DELIVERY_LINE.NEXT_TRY)
        .set(DELIVERY_LINE.REASON, reason)
        .set(DELIVERY_LINE.REMEDY, remedy)
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }

  /** Waits for something outside, and goes on by itself. */
  void notYet(UUID line, WaitsFor what, String reason, String remedy, Duration lookAgain) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, LineState.NOT_YET)
        .set(DELIVERY_LINE.WAITS_FOR, what)
        .set(DELIVERY_LINE.ACTIVITY, "")
        .set(DELIVERY_LINE.ATTEMPTS, 0)
        .set(DELIVERY_LINE.NEXT_TRY, OffsetDateTime.now(clock).plus(lookAgain))
        .set(DELIVERY_LINE.REASON, reason)
        .set(DELIVERY_LINE.REMEDY, remedy)
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }

  /** Whether all of a line was written, its links too. */
  boolean allWritten(UUID line) {
    return db.fetchExists(DELIVERY_LINE, DELIVERY_LINE.ID.eq(line).and(DELIVERY_LINE.ALL_WRITTEN));
  }

  void allWritten(UUID line, boolean is) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.ALL_WRITTEN, is)
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }

  void readAs(UUID line, String tag) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.READ_TAG, tag)
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }

  void lookAgain(UUID line, Duration pause) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.NEXT_TRY, OffsetDateTime.now(clock).plus(pause))
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }

  private static Integer[] column(Optional<StudentCounts> counts) {
    return counts
        .map(c -> new Integer[] {c.enrolments(), c.work(), c.grades(), c.posts()})
        .orElse(null);
  }

  /**
   * Notes once where the section stood before the line was carried out.
   *
   * @param counts of what was the students' own then
   */
  void stood(UUID line, Optional<Ledger.Stand> at, Optional<StudentCounts> counts) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STOOD, true)
        .set(DELIVERY_LINE.COUNTED_BEFORE, column(counts))
        .set(DELIVERY_LINE.STOOD_AT, at.map(Ledger.Stand::version).orElse(null))
        .set(DELIVERY_LINE.STOOD_EXPECTED, at.map(Ledger.Stand::expected).orElse(null))
        .set(DELIVERY_LINE.STOOD_WITHHELD, at.map(Ledger.Stand::withheld).orElse(null))
        .where(DELIVERY_LINE.ID.eq(line))
        .and(DELIVERY_LINE.STOOD.isFalse())
        .execute();
  }

  /** Where the section of a line stood before it was carried out; none if it was not. */
  Optional<Ledger.Stand> stood(UUID delivery, UUID section) {
    return db.selectFrom(DELIVERY_LINE)
        .where(DELIVERY_LINE.DELIVERY_ID.eq(delivery))
        .and(DELIVERY_LINE.SECTION_ID.eq(section))
        .and(DELIVERY_LINE.STOOD_AT.isNotNull())
        .fetchOptional(
            r -> new Ledger.Stand(r.getStoodAt(), r.getStoodExpected(), r.getStoodWithheld()));
  }

  /** The line of a section in a delivery. */
  UUID of(UUID delivery, UUID section) {
    return db.select(DELIVERY_LINE.ID)
        .from(DELIVERY_LINE)
        .where(DELIVERY_LINE.DELIVERY_ID.eq(delivery))
        .and(DELIVERY_LINE.SECTION_ID.eq(section))
        .fetchSingle(DELIVERY_LINE.ID);
  }

  /**
   * @param counts of what is the students' own now
   */
  void done(UUID line, String activity, Optional<StudentCounts> counts) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.COUNTED_AFTER, column(counts))
        .set(DELIVERY_LINE.STATE, LineState.DONE)
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
