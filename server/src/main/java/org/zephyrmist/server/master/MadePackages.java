package org.zephyrmist.server.master;

import static org.zephyrmist.server.db.Tables.FILE;
import static org.zephyrmist.server.db.Tables.MADE_PACKAGE;

import jakarta.validation.constraints.NotNull;
import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.OffsetDateTime;
import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.db.tables.records.MadePackageRecord;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;
import org.zephyrmist.server.queue.Queue;
import org.zephyrmist.server.web.Outage;
import org.zephyrmist.server.web.Refusal;
import org.zephyrmist.server.web.Workspace;
import tools.jackson.databind.json.JsonMapper;

/** Large packages, made in the background and kept for some days. */
@Component
class MadePackages implements Job {
  private static final Logger LOG = LoggerFactory.getLogger(MadePackages.class);
  private static final String NAME = "make-package";
  private static final Duration KEPT = Duration.ofDays(7);
  private static final int LISTED = 10;
  private static final int TRIES = 3;
  private static final long TOLD = 4L << 20;

  private final DSLContext db;
  private final TransactionTemplate transaction;
  private final Packages packages;
  private final Files files;
  private final Workspace workspace;
  private final JsonMapper json;
  private final Clock clock;

  MadePackages(
      DSLContext db,
      TransactionTemplate transaction,
      Packages packages,
      Files files,
      Workspace workspace,
      JsonMapper json,
      Clock clock) {
    this.db = db;
    this.transaction = transaction;
    this.packages = packages;
    this.files = files;
    this.workspace = workspace;
    this.json = json;
    this.clock = clock;
  }

  /** How far a package is. */
  enum State {
    MAKING,
    READY,
    FAILED
  }

  /**
   * @param bytes written so far
   */
  record MadePackage(
      @NotNull UUID id,
      @NotNull String fileName,
      @NotNull State state,
      long bytes,
      @NotNull String problem,
      @NotNull OffsetDateTime at) {}

  @Override
  public String name() {
    return NAME;
  }

  /** Puts it on the queue, once the caller's transaction is through. */
  UUID begin(Packages.Order order, String fileName, SignedIn who, Queue queue) {
    UUID id = UUID.randomUUID();
    return transaction.execute(
        t -> {
          db.insertInto(MADE_PACKAGE)
              .set(MADE_PACKAGE.ID, id)
              .set(MADE_PACKAGE.MASTER_ID, order.master())
              .set(MADE_PACKAGE.PERSON_ID, who.id())
              .set(MADE_PACKAGE.FILE_NAME, fileName)
              .set(MADE_PACKAGE.WANTED, JSONB.valueOf(json.writeValueAsString(order)))
              .set(MADE_PACKAGE.STATE, State.MAKING.name())
              .set(MADE_PACKAGE.MADE_AT, OffsetDateTime.now(clock))
              .execute();
          queue.put(NAME, List.of(id));
          return id;
        });
  }

  /** A person's own of a master, newest first. */
  List<MadePackage> list(UUID master, SignedIn who) {
    return db.selectFrom(MADE_PACKAGE)
        .where(MADE_PACKAGE.MASTER_ID.eq(master))
        .and(MADE_PACKAGE.PERSON_ID.eq(who.id()))
        .orderBy(MADE_PACKAGE.MADE_AT.desc())
        .limit(LISTED)
        .fetch(
            r ->
                new MadePackage(
                    r.getId(),
                    r.getFileName(),
                    State.valueOf(r.getState()),
                    r.getBytes(),
                    r.getProblem(),
                    r.getMadeAt()));
  }

  /** One that is ready. */
  MadePackageRecord ready(UUID master, UUID id, SignedIn who) {
    return db.selectFrom(MADE_PACKAGE)
        .where(MADE_PACKAGE.ID.eq(id))
        .and(MADE_PACKAGE.MASTER_ID.eq(master))
        .and(MADE_PACKAGE.PERSON_ID.eq(who.id()))
        .and(MADE_PACKAGE.SHA256.isNotNull())
        .fetchOptional()
        .orElseThrow(() -> Refusal.notFound("package"));
  }

  Packages.Order order(MadePackageRecord r) {
    return json.readValue(r.getWanted().data(), Packages.Order.class);
  }

  InputStream open(MadePackageRecord r) {
    return files.open(Fingerprint.of(r.getSha256()).hex());
  }

  @Override
  public Collection<UUID> strays() {
    return db.select(MADE_PACKAGE.ID)
        .from(MADE_PACKAGE)
        .where(MADE_PACKAGE.STATE.eq(State.MAKING.name()))
        .and(
            "not exists (select 1 from scheduled_tasks t where t.task_instance ="
                + " made_package.id::text and t.task_name = 'make-package')")
        .fetch(MADE_PACKAGE.ID);
  }

  /** Forgets packages that were made days ago. */
  @Override
  public void sweep() {
    db.deleteFrom(MADE_PACKAGE)
        .where(MADE_PACKAGE.MADE_AT.lt(OffsetDateTime.now(clock).minus(KEPT)))
        .returning(MADE_PACKAGE.SHA256)
        .fetch(MADE_PACKAGE.SHA256)
        .forEach(this::drop);
  }

  private void drop(byte[] sha256) {
    if (sha256 != null) {
      db.deleteFrom(FILE)
          .where(FILE.SHA256.eq(sha256))
          .and("not exists (select 1 from package_file p where p.sha256 = file.sha256)")
          .and("not exists (select 1 from sent_questions s where file.sha256 in (s.sent, s.kept))")
          .and("not exists (select 1 from made_package p where p.sha256 = file.sha256)")
          .execute();
    }
  }

  @Override
  public Outcome run(UUID id) {
    MadePackageRecord r =
        db.selectFrom(MADE_PACKAGE).where(MADE_PACKAGE.ID.eq(id)).fetchOptional().orElse(null);
    if (r == null || !r.getState().equals(State.MAKING.name())) {
      return Outcome.ENDED;
    }
    if (r.getTries() >= TRIES) {
      failed(id, "The server stopped " + TRIES + " times while it made this package.");
      return Outcome.ENDED;
    }
    r.setTries(r.getTries() + 1);
    r.update();
    try {
      make(r);
    } catch (IOException | RuntimeException e) {
      Outage.rethrow(e); // the queue tries again when the database is back
      LOG.error("Making {} failed", r.getFileName(), e);
      failed(id, "It could not be made: " + Outage.reason(e));
    }
    return Outcome.ENDED;
  }

  private void make(MadePackageRecord r) throws IOException {
    Packages.Order order = order(r);
    Path here = workspace.file("package");
    try {
      try (OutputStream out = new Told(java.nio.file.Files.newOutputStream(here), r.getId())) {
        packages.write(order, out);
      }
      transaction.executeWithoutResult(t -> keep(r, here));
    } finally {
      java.nio.file.Files.deleteIfExists(here);
    }
  }

  private void keep(MadePackageRecord r, Path here) {
    try (InputStream in = java.nio.file.Files.newInputStream(here)) {
      FileRef kept = files.keep(r.getFileName(), "application/zip", in);
      db.update(MADE_PACKAGE)
          .set(MADE_PACKAGE.STATE, State.READY.name())
          .set(MADE_PACKAGE.BYTES, kept.size())
          .set(MADE_PACKAGE.SHA256, Fingerprint.parse(kept.sha256()).bytes())
          .where(MADE_PACKAGE.ID.eq(r.getId()))
          .execute();
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }

  private void failed(UUID id, String problem) {
    db.update(MADE_PACKAGE)
        .set(MADE_PACKAGE.STATE, State.FAILED.name())
        .set(MADE_PACKAGE.PROBLEM, problem)
        .where(MADE_PACKAGE.ID.eq(id))
        .execute();
  }

  /** Says every few megabytes how many there are. */
  private final class Told extends FilterOutputStream {
    private final UUID id;
    private long bytes;
    private long told;

    Told(OutputStream out, UUID id) {
      super(out);
      this.id = id;
    }

    @Override
    public void write(int b) throws IOException {
      out.write(b);
      count(1);
    }

    @Override
    public void write(byte[] b, int off, int len) throws IOException {
      out.write(b, off, len);
      count(len);
    }

    private void count(int n) {
      bytes += n;
      if (bytes - told >= TOLD) {
        told = bytes;
        db.update(MADE_PACKAGE)
            .set(MADE_PACKAGE.BYTES, bytes)
            .where(MADE_PACKAGE.ID.eq(id))
            .execute();
      }
    }
  }
}
