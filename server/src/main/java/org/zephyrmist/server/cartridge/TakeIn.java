package org.zephyrmist.server.cartridge;

import static org.zephyrmist.server.db.Tables.INTAKE;

import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.Semaphore;
import org.jooq.DSLContext;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.cartridge.CartridgeException;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.db.tables.records.IntakeRecord;
import org.zephyrmist.server.platform.Turns;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;
import org.zephyrmist.server.web.Outage;

/** Reads packages and archives that wait, in the background, all or nothing. */
@Component
class TakeIn implements Job {
  static final String NAME = "take-in";
  private static final Logger LOG = LoggerFactory.getLogger(TakeIn.class);

  /** A package that ends the server each time is not read for ever. */
  private static final int TRIES = 3;

  /** Reading a package takes a worker as a shell of a platform does. */
  private static final UUID PACKAGES = new UUID(0, 1);

  private final DSLContext db;
  private final Waiting waiting;
  private final List<Reading> readings;
  private final Turns turns;
  private final Semaphore places;
  private final Clock clock;

  TakeIn(
      DSLContext db,
      Waiting waiting,
      List<Reading> readings,
      Turns turns,
      Settings settings,
      Clock clock) {
    this.turns = turns;
    this.clock = clock;
    this.db = db;
    this.waiting = waiting;
    this.readings = List.copyOf(readings);
    this.places = new Semaphore(settings.intakesAtOnce());
  }

  @Override
  public String name() {
    return NAME;
  }

  /** Intakes that somebody waits for and that are not on the queue. */
  @Override
  public Collection<UUID> strays() {
    return db.select(INTAKE.ID)
        .from(INTAKE)
        .where(INTAKE.STATE.eq(IntakeState.READING))
        .and(
            "not exists (select 1 from scheduled_tasks t where t.task_instance = intake.id::text"
                + " and t.task_name = 'take-in')")
        .fetch(INTAKE.ID);
  }

  @Override
  public Outcome run(UUID id) {
    if (!places.tryAcquire()) {
      return Outcome.NOT_NOW;
    }
    if (!turns.begin(PACKAGES)) {
      places.release();
      return Outcome.NOT_NOW;
    }
    try {
      IntakeRecord intake = db.selectFrom(INTAKE).where(INTAKE.ID.eq(id)).fetchSingle();
      if (intake.getState() == IntakeState.READING && !read(intake)) {
        return Outcome.NOT_NOW;
      }
      waiting.drop(id);
      return Outcome.ENDED;
    } finally {
      turns.end(PACKAGES);
      places.release();
    }
  }

  /** Reads a package; false if it is not to be had here yet. */
  private boolean read(IntakeRecord intake) {
    UUID id = intake.getId();
    Optional<Path> file = waiting.fetch(id, intake.getSize());
    if (file.isEmpty() && clock.instant().isBefore(lost(intake))) {
      return false;
    }
    if (file.isEmpty()) {
      refuse(
          id,
          "The server that received the package stopped before it was read; nothing was kept.",
          "",
          "Take the file in again.");
    } else if (intake.getTries() >= TRIES) {
      refuse(
          id,
          "Reading this package was cut off "
              + TRIES
              + " times, by the server or its database stopping; nothing was kept.",
          "",
          "Send the package and the server's log to its administrator.");
    } else {
      db.update(INTAKE).set(INTAKE.TRIES, INTAKE.TRIES.plus(1)).where(INTAKE.ID.eq(id)).execute();
      read(intake, file.get());
    }
    return true;
  }

  private static Instant lost(IntakeRecord intake) {
    return intake.getStartedAt().toInstant().plus(Waiting.LOST);
  }

  private void read(IntakeRecord intake, Path file) {
    UUID id = intake.getId();
    try {
      Reading reading = readings.stream().filter(r -> r.reads(intake)).findFirst().orElseThrow();
      Reading.Kept kept = reading.keep(intake, file);
      db.update(INTAKE)
          .set(INTAKE.STATE, IntakeState.DONE)
          .set(INTAKE.EDITION_ID, kept.edition())
          .set(INTAKE.MASTER_ID, kept.master())
          .set(INTAKE.KNOWN_ALREADY, kept.knownAlready())
          .where(INTAKE.ID.eq(id))
          .execute();
    } catch (Reading.Unreadable e) {
      CartridgeException c = e.problem();
      refuse(id, c.getMessage(), c.place(), c.remedy());
    } catch (RuntimeException e) {
      Outage.rethrow(e); // the queue tries again when the database is back
      LOG.error("Reading {} failed", intake.getFileName(), e);
      refuse(
          id,
          "What it holds could not be kept: " + Outage.reason(e),
          "",
          "Nothing was kept; send the package and the server's log to its administrator.");
    }
  }

  private void refuse(UUID id, String problem, String place, String remedy) {
    db.update(INTAKE)
        .set(INTAKE.STATE, IntakeState.REFUSED)
        .set(INTAKE.PROBLEM, problem)
        .set(INTAKE.PLACE, place)
        .set(INTAKE.REMEDY, remedy)
        .where(INTAKE.ID.eq(id))
        .execute();
  }
}
