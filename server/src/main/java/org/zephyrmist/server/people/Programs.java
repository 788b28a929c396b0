package org.zephyrmist.server.people;

import static org.jooq.impl.DSL.val;
import static org.zephyrmist.server.db.Tables.PERSON_PROGRAM;
import static org.zephyrmist.server.db.Tables.PROGRAM;

import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.server.web.Refusal;

/** Which programs a coordinator or designer reaches. */
@Component
public class Programs {
  private final DSLContext db;

  Programs(DSLContext db) {
    this.db = db;
  }

  /** In the order of their names. */
  List<CollegePeopleApi.ProgramView> of(UUID person) {
    return db.select(PROGRAM.ID, PROGRAM.NAME)
        .from(PERSON_PROGRAM)
        .join(PROGRAM)
        .on(PROGRAM.ID.eq(PERSON_PROGRAM.PROGRAM_ID))
        .where(PERSON_PROGRAM.PERSON_ID.eq(person))
        .orderBy(PROGRAM.NAME)
        .fetch(r -> new CollegePeopleApi.ProgramView(r.value1(), r.value2()));
  }

  public void reachAll(UUID person) {
    db.insertInto(PERSON_PROGRAM)
        .select(db.select(val(person), PROGRAM.ID).from(PROGRAM))
        .onConflictDoNothing()
        .execute();
  }

  /** Exactly these from now on. */
  @Transactional
  public void reachOnly(UUID person, Collection<UUID> programs) {
    db.deleteFrom(PERSON_PROGRAM).where(PERSON_PROGRAM.PERSON_ID.eq(person)).execute();
    int there =
        db.insertInto(PERSON_PROGRAM)
            .select(db.select(val(person), PROGRAM.ID).from(PROGRAM).where(PROGRAM.ID.in(programs)))
            .execute();
    if (there < Set.copyOf(programs).size()) {
      throw Refusal.notFound("program");
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
