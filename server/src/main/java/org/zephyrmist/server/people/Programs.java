package org.zephyrmist.server.people;

import static org.jooq.impl.DSL.val;
import static org.zephyrmist.server.db.Tables.PERSON_PROGRAM;
import static org.zephyrmist.server.db.Tables.PROGRAM;

import java.util.Collection;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Which programs a coordinator or designer reaches. */
@Component
public class Programs {
  private final DSLContext db;

  Programs(DSLContext db) {
    this.db = db;
  }

  public void reachAll(UUID person) {
    db.insertInto(PERSON_PROGRAM)
        .select(db.select(val(person), PROGRAM.ID).from(PROGRAM))
        .onConflictDoNothing()
        .execute();
  }

  /** On a new installation the coordinator who brings the roster reaches what it holds. */
  public void reachAllIfNone(SignedIn who) {
    boolean none = !db.fetchExists(PERSON_PROGRAM, PERSON_PROGRAM.PERSON_ID.eq(who.id()));
    if (none && who.role() == Role.COORDINATOR) {
      reachAll(who.id());
    }
  }

  /** Those whose OneRoster ids are given. */
  public void reach(UUID person, Collection<String> sourcedIds) {
    db.insertInto(PERSON_PROGRAM)
        .select(
            db.select(val(person), PROGRAM.ID)
                .from(PROGRAM)
                .where(PROGRAM.SOURCED_ID.in(sourcedIds)))
        .onConflictDoNothing()
        .execute();
  }
}
