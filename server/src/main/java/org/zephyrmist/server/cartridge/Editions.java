package org.zephyrmist.server.cartridge;

import static org.zephyrmist.server.db.Tables.EDITION;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Path;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.PessimisticLockingFailureException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.cartridge.CartridgeException;
import org.zephyrmist.core.cartridge.CartridgeReader;
import org.zephyrmist.core.cartridge.Limits;
import org.zephyrmist.core.cartridge.ReadingReport;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.IntakeRecord;
import org.zephyrmist.server.people.Events;
import tools.jackson.databind.json.JsonMapper;

/** Keeps packages as editions of cartridges; each file once, however many take it in. */
@Component
class Editions implements Reading {
  private static final Logger LOG = LoggerFactory.getLogger(Editions.class);
  private static final int DEADLOCKS = 5;
  private final ExecutorService unpackers = Executors.newCachedThreadPool();
  private final DSLContext db;
  private final TransactionTemplate transaction;
  private final Cartridges cartridges;
  private final Trees trees;
  private final Files files;
  private final Clock clock;
  private final JsonMapper json;
  private final Events events;

  Editions(
      DSLContext db,
      TransactionTemplate transaction,
      Cartridges cartridges,
      Trees trees,
      Files files,
      Clock clock,
      JsonMapper json,
      Events events) {
    this.db = db;
    this.transaction = transaction;
    this.cartridges = cartridges;
    this.trees = trees;
    this.files = files;
    this.clock = clock;
    this.json = json;
    this.events = events;
  }

  @PreDestroy
  void stop() {
    unpackers.shutdownNow();
  }

  @Override
  public boolean reads(IntakeRecord intake) {
    return !intake.getArchive();
  }

  /**
   * Two packages that share files may wait for each other; the database then ends one of them,
   * which reads again.
   */
  @Override
  public Kept keep(IntakeRecord intake, Path file) {
    for (int again = 0; ; again++) {
      try {
        return transaction.execute(t -> once(intake, file));
      } catch (PessimisticLockingFailureException e) {
        if (again == DEADLOCKS) {
          throw e;
        }
        LOG.info("{} met another intake and is read again", intake.getFileName());
      }
    }
  }

  /** Of several who take the same file in, one reads it; the others wait and are told. */
  private Kept once(IntakeRecord intake, Path file) {
    byte[] sha256 = intake.getSha256();
    db.query("select pg_advisory_xact_lock(?)", ByteBuffer.wrap(sha256).getLong()).execute();
    Optional<UUID> known =
        db.select(EDITION.ID)
            .from(EDITION)
            .where(EDITION.SHA256.eq(sha256))
            .fetchOptional(EDITION.ID);
    return known
        .map(e -> new Kept(e, null, true))
        .orElseGet(() -> new Kept(read(intake, file), null, false));
  }

  private UUID read(IntakeRecord intake, Path file) {
    UUID tree = trees.create();
    ReadingReport report = read(intake, file, tree);
    String title = Cartridges.title(report.facts(), intake.getFileName());
    UUID cartridge = cartridges.of(report.facts(), title);
    int number = 1 + db.fetchCount(EDITION, EDITION.CARTRIDGE_ID.eq(cartridge));
    UUID edition = UUID.randomUUID();
    db.insertInto(EDITION)
        .set(EDITION.ID, edition)
        .set(EDITION.CARTRIDGE_ID, cartridge)
        .set(EDITION.NUMBER, number)
        .set(EDITION.TREE_ID, tree)
        .set(EDITION.FILE_NAME, intake.getFileName())
        .set(EDITION.SHA256, intake.getSha256())
        .set(EDITION.SIZE, intake.getSize())
        .set(EDITION.REPORT, JSONB.valueOf(json.writeValueAsString(report)))
        .set(EDITION.TAKEN_BY, intake.getPersonId())
        .set(EDITION.TAKEN_AT, OffsetDateTime.now(clock))
        .execute();
    events.add(
        intake.getPersonId(),
        "took in",
        title + ", edition " + number,
        intake.getFileName(),
        "/sources/editions/" + edition);
    return edition;
  }

  private ReadingReport read(IntakeRecord intake, Path file, UUID tree) {
    String name = intake.getFileName();
    Batches batches = new Batches();
    Progress progress = new Progress(db, transaction, intake.getId());
    try (TreeIntake into =
        new TreeIntake(
            tree,
            trees,
            files,
            progress,
            f -> cartridges.keySpace(f, Cartridges.title(f, name)),
            batches)) {
      return batches.run(
          unpackers,
          () -> {
            ReadingReport r = CartridgeReader.read(file, Limits.DEFAULT, into);
            into.flush();
            return r;
          });
    } catch (CartridgeException e) {
      throw new Unreadable(e);
    } catch (IOException e) {
      throw new Unreadable(
          new CartridgeException(
              name, "The archive is damaged: " + e.getMessage(), "Download it again."));
    } catch (RuntimeException e) {
      throw e;
    } catch (Exception e) {
      throw new IllegalStateException(e);
    }
  }
}
