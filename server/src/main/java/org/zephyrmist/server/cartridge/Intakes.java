package org.zephyrmist.server.cartridge;

import static org.zephyrmist.server.db.Tables.INTAKE;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.queue.Queue;
import org.zephyrmist.server.web.Uploads;

/** Receives packages and puts their reading on the queue. */
@Component
public class Intakes {
  private final DSLContext db;
  private final TransactionTemplate transaction;
  private final Waiting waiting;
  private final Queue queue;
  private final Settings settings;
  private final Clock clock;

  Intakes(
      DSLContext db,
      TransactionTemplate transaction,
      Waiting waiting,
      Queue queue,
      Settings settings,
      Clock clock) {
    this.db = db;
    this.transaction = transaction;
    this.waiting = waiting;
    this.queue = queue;
    this.settings = settings;
    this.clock = clock;
  }

  /**
   * That a file is an archive of a source.
   *
   * @param code that a master is to have; empty for the one in the archive
   * @param program whose it is to be
   */
  public record AsSource(String code, Optional<UUID> program) {}

  /** Receives a package; if this server dies, another reads it. */
  public UUID begin(String fileName, InputStream in, SignedIn who) throws IOException {
    return begin(fileName, in, Optional.empty(), who);
  }

  /**
   * The same.
   *
   * @param archive none: it is a package
   */
  public UUID begin(String fileName, InputStream in, Optional<AsSource> archive, SignedIn who)
      throws IOException {
    UUID id = UUID.randomUUID();
    Path file = waiting.here(id);
    try {
      MessageDigest digest = Fingerprint.sha256();
      long size =
          Uploads.receive(
              new DigestInputStream(in, digest),
              file,
              settings.uploadMostBytes(),
              archive.isPresent() ? "archive" : "package",
              archive.isPresent()
                  ? "Raise the limit upload-most-bytes."
                  : "Split the package, or raise the limit upload-most-bytes.");
      byte[] sha256 = digest.digest();
      transaction.executeWithoutResult(
          t -> {
            db.insertInto(INTAKE)
                .set(INTAKE.ID, id)
                .set(INTAKE.FILE_NAME, fileName)
                .set(INTAKE.SIZE, size)
                .set(INTAKE.SHA256, sha256)
                .set(INTAKE.PERSON_ID, who.id())
                .set(INTAKE.ARCHIVE, archive.isPresent())
                .set(INTAKE.CODE, archive.map(AsSource::code).orElse(""))
                .set(INTAKE.PROGRAM_ID, archive.flatMap(AsSource::program).orElse(null))
                .set(INTAKE.STATE, IntakeState.READING)
                .set(INTAKE.STARTED_AT, OffsetDateTime.now(clock))
                .execute();
            queue.put(TakeIn.NAME, List.of(id));
          });
      waiting.keepSoon(id);
      return id;
    } catch (IOException | RuntimeException e) {
      Files.deleteIfExists(file);
      throw e;
    }
  }
}
