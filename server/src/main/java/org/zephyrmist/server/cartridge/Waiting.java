package org.zephyrmist.server.cartridge;

import static org.zephyrmist.server.db.Tables.INTAKE;
import static org.zephyrmist.server.db.Tables.INTAKE_PART;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.jooq.DSLContext;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.server.content.CopyRows;
import org.zephyrmist.server.web.Workspace;

/**
 * Packages that wait to be read: on the disk of the server that received them, which mostly is the
 * one that reads them, and a little later in the database, where every server finds them.
 */
@Component
class Waiting {
  private static final Logger LOG = LoggerFactory.getLogger(Waiting.class);
  private static final int PART = 1 << 20;
  private static final Duration SOON = Duration.ofSeconds(5);

  /** After which a package that nobody has kept is lost: its server would have kept it long ago. */
  static final Duration LOST = Duration.ofMinutes(1);

  private final ScheduledExecutorService keeper = Executors.newSingleThreadScheduledExecutor();
  private final DSLContext db;
  private final TransactionTemplate transaction;
  private final Workspace workspace;

  Waiting(DSLContext db, TransactionTemplate transaction, Workspace workspace) {
    this.db = db;
    this.transaction = transaction;
    this.workspace = workspace;
  }

  @PreDestroy
  void stop() {
    keeper.shutdownNow();
  }

  /** Where a package stands on this server's disk, whether it is there or not. */
  Path here(UUID intake) {
    return workspace.named("package-" + intake);
  }

  /**
   * Keeps a package in the database, unless it is read in a few seconds anyway: most are, and the
   * largest are those worth keeping. Looks again until it is read, by whichever server.
   */
  void keepSoon(UUID intake) {
    keeper.schedule(() -> look(intake), SOON.toMillis(), TimeUnit.MILLISECONDS);
  }

  private void look(UUID intake) {
    boolean reading = true;
    try {
      reading = Boolean.TRUE.equals(transaction.execute(t -> kept(intake)));
      if (!reading) {
        drop(intake); // also what was kept just when its reading ended
      }
    } catch (RuntimeException e) {
      LOG.warn("The package of intake {} may be on this server alone", intake, e);
    }
    if (reading) {
      keepSoon(intake);
    }
  }

  /** Keeps it if that was not done before; false if it is read. */
  private boolean kept(UUID intake) {
    boolean reading =
        db.fetchExists(INTAKE, INTAKE.ID.eq(intake).and(INTAKE.STATE.eq(IntakeState.READING)));
    if (reading
        && Files.exists(here(intake))
        && !db.fetchExists(INTAKE_PART, INTAKE_PART.INTAKE_ID.eq(intake))) {
      copy(intake);
    }
    return reading;
  }

  private void copy(UUID intake) {
    CopyRows.into(
        db,
        "intake_part (intake_id, n, data)",
        copy -> {
          byte[] part = new byte[PART];
          try (InputStream in = Files.newInputStream(here(intake))) {
            int n = 0;
            for (int size; (size = in.readNBytes(part, 0, PART)) > 0; ) {
              copy.row(3).add(intake).add(n++).add(part, size);
            }
          }
        });
  }

  /**
   * The package on this server's disk.
   *
   * @return none if it is nowhere else: the server that received it has not kept it (yet), or
   *     PostgreSQL was not shut down properly meanwhile
   */
  Optional<Path> fetch(UUID intake, long size) {
    Path file = here(intake);
    try {
      if (Files.exists(file) && Files.size(file) == size) {
        return Optional.of(file);
      }
      long written = 0;
      try (OutputStream out = Files.newOutputStream(file)) {
        for (int n = 0; written < size; n++) {
          byte[] part =
              db.select(INTAKE_PART.DATA)
                  .from(INTAKE_PART)
                  .where(INTAKE_PART.INTAKE_ID.eq(intake))
                  .and(INTAKE_PART.N.eq(n))
                  .fetchOne(INTAKE_PART.DATA);
          if (part == null) {
            Files.delete(file);
            return Optional.empty();
          }
          out.write(part);
          written += part.length;
        }
      }
      return Optional.of(file);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** It has been read, or will not be. */
  void drop(UUID intake) {
    db.deleteFrom(INTAKE_PART).where(INTAKE_PART.INTAKE_ID.eq(intake)).execute();
    try {
      Files.deleteIfExists(here(intake));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
