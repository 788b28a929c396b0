package org.zephyrmist.server.section;

import static org.zephyrmist.server.db.Tables.SECTION;

import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Sections that are asked for one by one. */
@Component
public class ReachedSections {
  private final DSLContext db;
  private final Reach reach;

  ReachedSections(DSLContext db, Reach reach) {
    this.db = db;
    this.reach = reach;
  }

  /** What is out of a person's reach is not found. */
  public void check(UUID section, SignedIn who) {
    if (!db.fetchExists(SECTION, SECTION.ID.eq(section).and(reach.sections(who)))) {
      throw Refusal.notFound("section");
    }
  }
}
