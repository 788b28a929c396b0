package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.SECTION;

import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Sections that something is asked for: all within reach, or none is found. */
@Component
public class ToolReach {
  private final DSLContext db;
  private final Reach reach;

  ToolReach(DSLContext db, Reach reach) {
    this.db = db;
    this.reach = reach;
  }

  /** The same, each once. */
  public List<UUID> all(List<UUID> asked, SignedIn who) {
    List<UUID> reached =
        db.select(SECTION.ID)
            .from(SECTION)
            .where(SECTION.ID.in(asked))
            .and(reach.sections(who))
            .fetch(SECTION.ID);
    if (reached.size() < asked.stream().distinct().count()) {
      throw Refusal.notFound("section");
    }
    return reached;
  }
}
