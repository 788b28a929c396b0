package org.zephyrmist.server.people;

import static org.jooq.impl.DSL.select;
import static org.zephyrmist.server.db.Tables.EVENT;
import static org.zephyrmist.server.db.Tables.PERSON;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** The record of who did what; only ever added to. */
@Component
public class Events {
  private final DSLContext db;
  private final Clock clock;

  Events(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  public void add(UUID person, String what, String subject, String detail) {
    add(person, what, subject, detail, null);
  }

  /**
   * @param leadsTo address in the application where the subject is looked at
   */
  public void add(UUID person, String what, String subject, String detail, String leadsTo) {
    db.insertInto(EVENT)
        .set(EVENT.AT, OffsetDateTime.now(clock))
        .set(EVENT.PERSON_ID, person)
        .set(
            EVENT.PERSON_NAME,
            select(PERSON.NAME).from(PERSON).where(PERSON.ID.eq(person)).<String>asField())
        .set(EVENT.WHAT, what)
        .set(EVENT.SUBJECT, subject)
        .set(EVENT.DETAIL, detail)
        .set(EVENT.LEADS_TO, leadsTo)
        .execute();
  }
}
