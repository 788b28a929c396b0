package org.zephyrmist.server.shell;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_FOLLOWS;
import static org.zephyrmist.server.db.Tables.TERM;

import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.delivery.SectionFacts;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.platform.Platforms;

/** The shells of sections, and the ways to them. */
@Component
public class Shells {
  private final DSLContext db;
  private final Platforms platforms;

  Shells(DSLContext db, Platforms platforms) {
    this.db = db;
    this.platforms = platforms;
  }

  public Shell of(UUID section) {
    return db.select(
            SECTION.ID, SECTION.PLATFORM_ID, SECTION.SHELL, CAMPUS.SOURCED_ID, TERM.FIRST_DAY)
        .from(SECTION)
        .join(CAMPUS)
        .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
        .leftJoin(TERM)
        .on(TERM.ID.eq(SECTION.TERM_ID))
        .where(SECTION.ID.eq(section))
        .fetchSingle(
            r ->
                new Shell(
                    r.value1(),
                    Optional.ofNullable(r.value2()),
                    Optional.ofNullable(r.value3()),
                    new SectionFacts(r.value4(), "", Set.of(), Optional.ofNullable(r.value5()))));
  }

  /** The section of an earlier term that a section follows; none if it follows none. */
  public Optional<UUID> follows(UUID section) {
    return db.select(SECTION_FOLLOWS.FOLLOWS_ID)
        .from(SECTION_FOLLOWS)
        .where(SECTION_FOLLOWS.SECTION_ID.eq(section))
        .fetchOptional(SECTION_FOLLOWS.FOLLOWS_ID);
  }

  /**
   * The way to a shell.
   *
   * @throws PlatformException if the section has none
   */
  public PlatformGateway gateway(Shell shell) {
    if (shell.id().isEmpty()) {
      throw PlatformException.lasting(
          "This section has no shell.",
          "Have its shell created on the platform, take the roster in again, then go on.");
    }
    return platforms.gateway(shell.platform().orElseThrow());
  }
}
