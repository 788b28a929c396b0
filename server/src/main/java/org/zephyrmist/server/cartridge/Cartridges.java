package org.zephyrmist.server.cartridge;

import static org.zephyrmist.server.db.Tables.CARTRIDGE;

import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.cartridge.CartridgeFacts;
import org.zephyrmist.core.content.KeySpace;
import org.zephyrmist.core.content.Titles;

/** Cartridges: packages with one title, however they are written, are editions of one. */
@Component
class Cartridges {
  private final DSLContext db;

  Cartridges(DSLContext db) {
    this.db = db;
  }

  static String title(CartridgeFacts facts, String fileName) {
    return facts.title().isBlank() ? stem(fileName) : facts.title();
  }

  private static String stem(String name) {
    String stem = name.replaceFirst("\\.[A-Za-z0-9]{1,6}$", "");
    return stem.isBlank() ? "Untitled cartridge" : stem;
  }

  /** The keys of all editions of a cartridge, those it had before keys named their source too. */
  KeySpace keySpace(String title) {
    String identifier = Titles.folded(title);
    boolean old =
        db.fetchExists(CARTRIDGE, CARTRIDGE.IDENTIFIER.eq(identifier).and(CARTRIDGE.OLD_KEYS));
    return old ? KeySpace.WITHOUT_SOURCE : KeySpace.of(identifier);
  }

  /** Packages with one title are editions of one cartridge. */
  UUID of(String title) {
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
}
