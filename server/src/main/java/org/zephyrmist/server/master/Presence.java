package org.zephyrmist.server.master;

import static org.zephyrmist.server.db.Tables.DRAFT_PRESENCE;
import static org.zephyrmist.server.db.Tables.PERSON;

import jakarta.validation.constraints.NotNull;
import java.time.Clock;
import java.time.Duration;
import java.time.OffsetDateTime;
import java.util.List;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.people.SignedIn;

/** Who is at a draft just now, and at which of its items. */
@Component
class Presence {
  /** A page says every few seconds that it is open. */
  private static final Duration GONE = Duration.ofSeconds(25);

  private final DSLContext db;
  private final Clock clock;

  Presence(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /**
   * Somebody else at the same draft.
   *
   * @param key of the item they look at; may be empty
   * @param writing whether they write it
   */
  record Other(@NotNull String name, @NotNull String key, boolean writing) {}

  /** Says where a person is; gives who else is there. */
  @Transactional
  List<Other> here(MasterRecord master, String key, boolean writing, SignedIn who) {
    OffsetDateTime now = OffsetDateTime.now(clock);
    db.insertInto(DRAFT_PRESENCE)
        .values(master.getId(), who.id(), key, writing, now)
        .onConflict(DRAFT_PRESENCE.MASTER_ID, DRAFT_PRESENCE.PERSON_ID)
        .doUpdate()
        .setAllToExcluded()
        .execute();
    return db.select(PERSON.NAME, DRAFT_PRESENCE.ITEM_KEY, DRAFT_PRESENCE.WRITING)
        .from(DRAFT_PRESENCE)
        .join(PERSON)
        .on(PERSON.ID.eq(DRAFT_PRESENCE.PERSON_ID))
        .where(DRAFT_PRESENCE.MASTER_ID.eq(master.getId()))
        .and(DRAFT_PRESENCE.PERSON_ID.ne(who.id()))
        .and(DRAFT_PRESENCE.SEEN_AT.gt(now.minus(GONE)))
        .orderBy(PERSON.NAME)
        .fetch(r -> new Other(r.value1(), r.value2(), r.value3()));
  }
}
