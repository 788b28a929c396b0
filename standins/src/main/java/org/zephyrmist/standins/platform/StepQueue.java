package org.zephyrmist.standins.platform;

import static org.zephyrmist.standins.db.Tables.QUEUE;
import static org.zephyrmist.standins.db.Tables.QUEUED;
import static org.zephyrmist.standins.db.Tables.QUEUED_KEY;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.standins.db.tables.records.QueuedRecord;
import tools.jackson.databind.json.JsonMapper;

/** The platform's own queue: while it is paused, what is sent is accepted and not done. */
@Component
class StepQueue {
  private final DSLContext db;
  private final Steps steps;
  private final JsonMapper json;
  private final TransactionTemplate transaction;
  private final Clock clock;

  StepQueue(
      DSLContext db, Steps steps, JsonMapper json, TransactionTemplate transaction, Clock clock) {
    this.db = db;
    this.steps = steps;
    this.json = json;
    this.transaction = transaction;
    this.clock = clock;
  }

  boolean paused() {
    return db.selectFrom(QUEUE).fetchSingle().getPaused();
  }

  int waiting() {
    return db.fetchCount(QUEUED);
  }

  /**
   * Puts steps on the queue if it is paused, each once however often it is sent.
   *
   * @return whether they are on it
   */
  @Transactional
  public boolean accept(String shell, List<Wire.Step> sent) {
    boolean paused = db.selectFrom(QUEUE).forUpdate().fetchSingle().getPaused();
    if (!paused || steps.done(sent)) {
      return false;
    }
    boolean known =
        db.fetchExists(QUEUED_KEY, QUEUED_KEY.KEY.in(sent.stream().map(Wire.Step::key).toList()));
    if (!known) {
      long id =
          db.insertInto(QUEUED)
              .set(QUEUED.SHELL_ID, shell)
              .set(QUEUED.STEPS, JSONB.valueOf(json.writeValueAsString(new Wire.Steps(sent))))
              .set(QUEUED.AT, OffsetDateTime.now(clock))
              .returning(QUEUED.ID)
              .fetchSingle()
              .getId();
      db.batch(
              sent.stream()
                  .map(
                      s ->
                          db.insertInto(QUEUED_KEY)
                              .set(QUEUED_KEY.KEY, s.key())
                              .set(QUEUED_KEY.QUEUED_ID, id))
                  .toList())
          .execute();
    }
    return true;
  }

  void pause() {
    db.update(QUEUE).set(QUEUE.PAUSED, true).execute();
  }

  /** Does all that waits, in its order, and from now on what is sent at once. */
  void goOn() {
    boolean more = true;
    while (more) {
      more = Boolean.TRUE.equals(transaction.execute(t -> one()));
    }
  }

  /**
   * @return whether there was one
   */
  private boolean one() {
    db.selectFrom(QUEUE).forUpdate().fetchSingle();
    Optional<QueuedRecord> next = db.selectFrom(QUEUED).orderBy(QUEUED.ID).limit(1).fetchOptional();
    if (next.isEmpty()) {
      db.update(QUEUE).set(QUEUE.PAUSED, false).execute();
      return false;
    }
    QueuedRecord q = next.get();
    db.deleteFrom(QUEUED).where(QUEUED.ID.eq(q.getId())).execute();
    List<Wire.Step> waited = json.readValue(q.getSteps().data(), Wire.Steps.class).steps();
    if (steps.fits(q.getShellId(), waited)) {
      steps.apply(q.getShellId(), waited, "Zephyrmist");
    } // else whoever sends them again is told so
    return true;
  }
}
