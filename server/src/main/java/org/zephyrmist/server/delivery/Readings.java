package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.SECTION;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.queue.Queue;
import org.zephyrmist.server.shell.ReadSection;

/** Reads shells again on demand, so that coverage shows what instructors changed since. */
@Component
class Readings {
  private final DSLContext db;
  private final Queue queue;
  private final Reach reach;

  Readings(DSLContext db, Queue queue, Reach reach) {
    this.db = db;
    this.queue = queue;
    this.reach = reach;
  }

  /** Reads these sections again in the background, as far as they are within reach. */
  int begin(Collection<UUID> sections, SignedIn who) {
    List<UUID> reached = reached(sections, who);
    queue.put(ReadSection.NAME, reached);
    return reached.size();
  }

  /** How many of these are still to be read. */
  int left(Collection<UUID> sections, SignedIn who) {
    return queue.left(ReadSection.NAME, reached(sections, who));
  }

  private List<UUID> reached(Collection<UUID> sections, SignedIn who) {
    return db.select(SECTION.ID)
        .from(SECTION)
        .where(SECTION.ID.in(sections))
        .and(SECTION.SHELL.isNotNull())
        .and(reach.sections(who))
        .fetch(SECTION.ID);
  }
}
