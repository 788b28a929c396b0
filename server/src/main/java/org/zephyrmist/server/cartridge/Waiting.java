package org.zephyrmist.server.cartridge;

import static org.zephyrmist.server.db.Tables.INTAKE_PART;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.content.CopyRows;
import org.zephyrmist.server.web.Workspace;

/**
 * Packages that wait to be read: in the database, where every server finds them, and on the disk of
 * the server that received them, which mostly is the one that reads them.
 */
@Component
class Waiting {
  private static final int PART = 1 << 20;
  private final DSLContext db;
  private final Workspace workspace;

  Waiting(DSLContext db, Workspace workspace) {
    this.db = db;
    this.workspace = workspace;
  }

  /** Where a package stands on this server's disk, whether it is there or not. */
  Path here(UUID intake) {
    return workspace.named("package-" + intake);
  }

  /** Keeps a package in the running transaction. */
  void keep(UUID intake, Path file) {
    CopyRows.into(
        db,
        "intake_part (intake_id, n, data)",
        copy -> {
          byte[] part = new byte[PART];
          try (InputStream in = Files.newInputStream(file)) {
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
   * @return none if it is nowhere any more: PostgreSQL was not shut down properly meanwhile
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
    dropHere(intake);
  }

  /** What is on this server's disk; in the database it stays. */
  void dropHere(UUID intake) {
    try {
      Files.deleteIfExists(here(intake));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
