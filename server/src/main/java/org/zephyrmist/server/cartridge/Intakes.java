package org.zephyrmist.server.cartridge;

import static org.zephyrmist.server.db.Tables.CARTRIDGE;
import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.INTAKE;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.dao.PessimisticLockingFailureException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.cartridge.CartridgeException;
import org.zephyrmist.core.cartridge.CartridgeFacts;
import org.zephyrmist.core.cartridge.CartridgeReader;
import org.zephyrmist.core.cartridge.Limits;
import org.zephyrmist.core.cartridge.ReadingReport;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.KeySpace;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Uploads;
import org.zephyrmist.server.web.Workspace;
import tools.jackson.databind.json.JsonMapper;

/** Takes packages in: first the file, then its reading in the background, all or nothing. */
@Component
public class Intakes {
  private static final Logger LOG = LoggerFactory.getLogger(Intakes.class);
  private static final int DEADLOCKS = 5;
  private final ExecutorService readers = Executors.newFixedThreadPool(2);
  private final ExecutorService unpackers = Executors.newCachedThreadPool();
  private final ScheduledExecutorService pulse = Executors.newSingleThreadScheduledExecutor();
  private final Set<UUID> reading = ConcurrentHashMap.newKeySet();
  private final DSLContext db;
  private final TransactionTemplate transaction;
  private final Trees trees;
  private final org.zephyrmist.server.content.Files files;
  private final Settings settings;
  private final Clock clock;
  private final JsonMapper json;
  private final Events events;
  private final Workspace workspace;

  Intakes(
      DSLContext db,
      TransactionTemplate transaction,
      Trees trees,
      org.zephyrmist.server.content.Files files,
      Settings settings,
      Clock clock,
      JsonMapper json,
      Events events,
      Workspace workspace) {
    this.workspace = workspace;
    this.db = db;
    this.transaction = transaction;
    this.trees = trees;
    this.files = files;
    this.settings = settings;
    this.clock = clock;
    this.json = json;
    this.events = events;
    pulse.scheduleAtFixedRate(this::alive, 10, 10, TimeUnit.SECONDS);
  }

  @PreDestroy
  void stop() {
    readers.shutdownNow();
    unpackers.shutdownNow();
    pulse.shutdownNow();
  }

  /** Marks what this server reads, so that others can tell when it has died. */
  private void alive() {
    try {
      db.update(INTAKE)
          .set(INTAKE.ALIVE_AT, OffsetDateTime.now(clock))
          .where(INTAKE.ID.in(reading))
          .execute();
    } catch (DataAccessException e) { // or the pulse would stop for good
      LOG.warn("The database did not answer; the next pulse tells again", e);
    }
  }

  /** Ends intakes whose server has died; nothing of them was kept. */
  void endDead() {
    db.update(INTAKE)
        .set(INTAKE.STATE, "REFUSED")
        .set(INTAKE.PROBLEM, "The server stopped while it read the package; nothing was kept.")
        .set(INTAKE.REMEDY, "Take the file in again.")
        .where(INTAKE.STATE.eq("READING"))
        .and(INTAKE.ALIVE_AT.lt(OffsetDateTime.now(clock).minusSeconds(60)))
        .execute();
  }

  /** Receives the file and starts its reading. */
  public UUID begin(String fileName, InputStream in, SignedIn who) throws IOException {
    Path file = workspace.file("package");
    MessageDigest digest = Fingerprint.sha256();
    long size;
    try {
      size =
          Uploads.receive(
              new DigestInputStream(in, digest),
              file,
              settings.uploadMostBytes(),
              "package",
              "Split the package, or raise the limit upload-most-bytes.");
    } catch (IOException | RuntimeException e) {
      Files.delete(file);
      throw e;
    }
    UUID id = UUID.randomUUID();
    db.insertInto(INTAKE)
        .set(INTAKE.ID, id)
        .set(INTAKE.FILE_NAME, fileName)
        .set(INTAKE.SIZE, size)
        .set(INTAKE.PERSON_ID, who.id())
        .set(INTAKE.STATE, "READING")
        .set(INTAKE.STARTED_AT, OffsetDateTime.now(clock))
        .set(INTAKE.ALIVE_AT, OffsetDateTime.now(clock))
        .execute();
    reading.add(id);
    byte[] sha256 = digest.digest();
    readers.execute(() -> read(id, fileName, file, sha256, size, who));
    return id;
  }

  private void read(UUID id, String name, Path file, byte[] sha256, long size, SignedIn who) {
    try {
      Kept kept = keepInTurn(id, name, file, sha256, size, who);
      db.update(INTAKE)
          .set(INTAKE.STATE, "DONE")
          .set(INTAKE.EDITION_ID, kept.edition())
          .set(INTAKE.KNOWN_ALREADY, kept.knownAlready())
          .where(INTAKE.ID.eq(id))
          .execute();
    } catch (Unreadable e) {
      CartridgeException c = e.cause;
      refuse(id, c.getMessage(), c.place(), c.remedy());
    } catch (RuntimeException e) {
      LOG.error("Reading {} failed", name, e);
      refuse(id, "Reading stopped: " + e.getMessage(), "", "Nothing was kept; take it in again.");
    } finally {
      reading.remove(id);
      try {
        Files.deleteIfExists(file);
      } catch (IOException e) {
        LOG.warn("A temporary file stays behind: {}", file, e);
      }
    }
  }

  private record Kept(UUID edition, boolean knownAlready) {}

  /**
   * Two packages that share files may wait for each other; the database then ends one of them,
   * which reads again.
   */
  private Kept keepInTurn(UUID id, String name, Path file, byte[] sha256, long size, SignedIn who) {
    for (int again = 0; ; again++) {
      try {
        return transaction.execute(t -> keepOnce(id, name, file, sha256, size, who));
      } catch (PessimisticLockingFailureException e) {
        if (again == DEADLOCKS) {
          throw e;
        }
        LOG.info("{} met another intake and is read again", name);
      }
    }
  }

  /** Of several who take the same file in, one reads it; the others wait and are told. */
  private Kept keepOnce(UUID id, String name, Path file, byte[] sha256, long size, SignedIn who) {
    db.query("select pg_advisory_xact_lock(?)", ByteBuffer.wrap(sha256).getLong()).execute();
    return edition(sha256)
        .map(e -> new Kept(e, true))
        .orElseGet(() -> new Kept(keep(id, name, file, sha256, size, who), false));
  }

  private void refuse(UUID id, String problem, String place, String remedy) {
    db.update(INTAKE)
        .set(INTAKE.STATE, "REFUSED")
        .set(INTAKE.PROBLEM, problem)
        .set(INTAKE.PLACE, place)
        .set(INTAKE.REMEDY, remedy)
        .where(INTAKE.ID.eq(id))
        .execute();
  }

  private Optional<UUID> edition(byte[] sha256) {
    return db.select(EDITION.ID)
        .from(EDITION)
        .where(EDITION.SHA256.eq(sha256))
        .fetchOptional(EDITION.ID);
  }

  private UUID keep(UUID intake, String name, Path file, byte[] sha256, long size, SignedIn who) {
    UUID tree = trees.create();
    ReadingReport report = read(file, name, tree, new Progress(intake));
    String title = title(report.facts(), name);
    UUID cartridge = cartridge(title);
    int number = 1 + db.fetchCount(EDITION, EDITION.CARTRIDGE_ID.eq(cartridge));
    UUID edition = UUID.randomUUID();
    db.insertInto(EDITION)
        .set(EDITION.ID, edition)
        .set(EDITION.CARTRIDGE_ID, cartridge)
        .set(EDITION.NUMBER, number)
        .set(EDITION.TREE_ID, tree)
        .set(EDITION.FILE_NAME, name)
        .set(EDITION.SHA256, sha256)
        .set(EDITION.SIZE, size)
        .set(EDITION.REPORT, JSONB.valueOf(json.writeValueAsString(report)))
        .set(EDITION.TAKEN_BY, who.id())
        .set(EDITION.TAKEN_AT, OffsetDateTime.now(clock))
        .execute();
    String page = "/sources/editions/" + edition;
    events.add(who.id(), "took in", title + ", edition " + number, name, page);
    return edition;
  }

  private ReadingReport read(Path file, String name, UUID tree, Progress progress) {
    Handover handover = new Handover();
    try (TreeIntake into =
        new TreeIntake(tree, trees, files, progress, f -> keySpace(title(f, name)), handover)) {
      return handover.run(
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

  private static String title(CartridgeFacts facts, String fileName) {
    return facts.title().isBlank() ? stem(fileName) : facts.title();
  }

  private static String stem(String name) {
    String stem = name.replaceFirst("\\.[A-Za-z0-9]{1,6}$", "");
    return stem.isBlank() ? "Untitled cartridge" : stem;
  }

  /** The keys of all editions of a cartridge, those it had before keys named their source too. */
  private KeySpace keySpace(String title) {
    String identifier = Titles.folded(title);
    boolean old =
        db.fetchExists(CARTRIDGE, CARTRIDGE.IDENTIFIER.eq(identifier).and(CARTRIDGE.OLD_KEYS));
    return old ? KeySpace.WITHOUT_SOURCE : KeySpace.of(identifier);
  }

  /** Packages with one title are editions of one cartridge. */
  private UUID cartridge(String title) {
    String identifier = Titles.folded(title);
    db.insertInto(CARTRIDGE, CARTRIDGE.ID, CARTRIDGE.TITLE, CARTRIDGE.IDENTIFIER)
        .values(UUID.randomUUID(), title, identifier)
        .onConflictDoNothing()
        .execute();
    return db.select(CARTRIDGE.ID)
        .from(CARTRIDGE)
        .where(CARTRIDGE.IDENTIFIER.eq(identifier))
        .forUpdate()
        .fetchSingle(CARTRIDGE.ID);
  }

  /** Writes progress outside the transaction of the reading, a few times a second at the most. */
  private final class Progress implements TreeIntake.Progress {
    private final UUID intake;
    private long last;

    Progress(UUID intake) {
      this.intake = intake;
    }

    @Override
    public void at(int done, int total, String what) {
      long now = System.nanoTime();
      if (now - last < 300_000_000L) {
        return;
      }
      last = now;
      TransactionTemplate own = new TransactionTemplate(transaction.getTransactionManager());
      own.setPropagationBehavior(TransactionTemplate.PROPAGATION_REQUIRES_NEW);
      own.executeWithoutResult(
          t ->
              db.update(INTAKE)
                  .set(INTAKE.DONE, done)
                  .set(INTAKE.TOTAL, total)
                  .set(INTAKE.WHAT, what)
                  .where(INTAKE.ID.eq(intake))
                  .execute());
    }
  }

  private static final class Unreadable extends RuntimeException {
    private final CartridgeException cause;

    Unreadable(CartridgeException cause) {
      super(cause);
      this.cause = cause;
    }
  }
}
