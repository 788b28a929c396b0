package org.zephyrmist.server.cartridge;

import java.nio.file.Path;
import java.util.UUID;
import org.zephyrmist.core.cartridge.CartridgeException;
import org.zephyrmist.server.db.tables.records.IntakeRecord;

/** A way to read what was sent: packages as editions, archives as sources of their own. */
public interface Reading {
  boolean reads(IntakeRecord intake);

  /**
   * Keeps what a file holds, all or nothing.
   *
   * @throws Unreadable if it cannot be kept as it is
   */
  Kept keep(IntakeRecord intake, Path file);

  /**
   * What it became.
   *
   * @param edition null if it is a master
   * @param master null if it is an edition
   * @param knownAlready whether the very same file had been taken in before
   */
  record Kept(UUID edition, UUID master, boolean knownAlready) {}

  /** It cannot be read; nothing of it was kept. */
  final class Unreadable extends RuntimeException {
    private final CartridgeException problem;

    public Unreadable(CartridgeException problem) {
      super(problem);
      this.problem = problem;
    }

    CartridgeException problem() {
      return problem;
    }
  }
}
