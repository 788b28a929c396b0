package org.zephyrmist.server.people;

import static org.zephyrmist.server.db.Tables.EVENT;

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
        .set(EVENT.WHAT, what)
        .set(EVENT.SUBJECT, subject)
        .set(EVENT.DETAIL, detail)
        .set(EVENT.LEADS_TO, leadsTo)
        .execute();
  }
}
