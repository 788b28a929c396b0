package org.zephyrmist.server.master;

import static org.zephyrmist.server.db.Tables.DRAFT_EDIT;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PERSON;

import java.time.Clock;
import java.time.OffsetDateTime;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Who changed what of a draft last, and that nobody does at the same time. */
@Component
class DraftEdits {
  private final DSLContext db;
  private final Clock clock;

  DraftEdits(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /** Waits until nobody else changes the draft, until the end of the running transaction. */
  void begin(MasterRecord master) {
    db.selectOne().from(MASTER).where(MASTER.ID.eq(master.getId())).forUpdate().fetch();
  }

  /** Notes a change as the next revision of the draft. */
  void end(MasterRecord master, ItemKey key, SignedIn who) {
    long revision =
        db.update(MASTER)
            .set(MASTER.DRAFT_REVISION, MASTER.DRAFT_REVISION.plus(1))
            .where(MASTER.ID.eq(master.getId()))
            .returningResult(MASTER.DRAFT_REVISION)
            .fetchSingle()
            .value1();
    db.insertInto(DRAFT_EDIT)
        .set(DRAFT_EDIT.MASTER_ID, master.getId())
        .set(DRAFT_EDIT.ITEM_KEY, key.value())
        .set(DRAFT_EDIT.REVISION, revision)
        .set(DRAFT_EDIT.PERSON_ID, who.id())
        .set(DRAFT_EDIT.AT, OffsetDateTime.now(clock))
        .onDuplicateKeyUpdate()
        .set(DRAFT_EDIT.REVISION, revision)
        .set(DRAFT_EDIT.PERSON_ID, who.id())
        .set(DRAFT_EDIT.AT, OffsetDateTime.now(clock))
        .execute();
  }

  /** What somebody else did to the item meanwhile. */
  Refusal conflict(MasterRecord master, Item item, String did) {
    String who =
        db.select(PERSON.NAME)
            .from(DRAFT_EDIT)
            .join(PERSON)
            .on(PERSON.ID.eq(DRAFT_EDIT.PERSON_ID))
            .where(DRAFT_EDIT.MASTER_ID.eq(master.getId()))
            .and(DRAFT_EDIT.ITEM_KEY.eq(item.key().value()))
            .fetchOptional(PERSON.NAME)
            .orElse("Somebody");
    return new Refusal(
        HttpStatus.CONFLICT,
        who + " " + did + " “" + item.title() + "” while you were at it; yours was not kept.",
        "Open the item anew beside this, bring over what is yours, and save it again.");
  }
}
