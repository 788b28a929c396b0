package org.zephyrmist.server.line;

import static org.jooq.impl.DSL.excluded;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_DECISION;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Decisions;
import org.zephyrmist.server.db.tables.Delivery;

/** What people decided of single steps, as it is stored. */
@Component
public class Decided {
  private final DSLContext db;
  private final Clock clock;

  Decided(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /** Whether steps of a delivery are decided at all: not of a change made alike in many shells. */
  public boolean possible(UUID delivery) {
    Delivery back = DELIVERY.as("back");
    return !db.fetchExists(
        DELIVERY.leftJoin(back).on(back.ID.eq(DELIVERY.TAKES_BACK)),
        DELIVERY.ID.eq(delivery).and(DELIVERY.EDIT.isNotNull().or(back.EDIT.isNotNull())));
  }

  public Decisions of(UUID delivery) {
    Map<Decisions.About, Decisions.Decision> made = new HashMap<>();
    db.selectFrom(DELIVERY_DECISION)
        .where(DELIVERY_DECISION.DELIVERY_ID.eq(delivery))
        .forEach(
            r ->
                made.put(
                    new Decisions.About(
                        new ItemKey(r.getItemKey()),
                        Optional.ofNullable(r.getAlike()).map(Fingerprint::of)),
                    new Decisions.Decision(
                        r.getTake(), Optional.ofNullable(r.getTogether()).map(Fingerprint::of))));
    return new Decisions(made);
  }

  /**
   * Keeps a decision in the place of an older one about the same.
   *
   * @param work whether it is about what students left on the item
   */
  public void keep(
      UUID delivery,
      Decisions.About about,
      Decisions.Decision decision,
      boolean work,
      UUID person) {
    db.insertInto(DELIVERY_DECISION)
        .set(DELIVERY_DECISION.DELIVERY_ID, delivery)
        .set(DELIVERY_DECISION.ITEM_KEY, about.item().value())
        .set(DELIVERY_DECISION.ALIKE, about.alike().map(Fingerprint::bytes).orElse(null))
        .set(DELIVERY_DECISION.OF_WORK, work)
        .set(DELIVERY_DECISION.TAKE, decision.take())
        .set(DELIVERY_DECISION.TOGETHER, decision.text().map(Fingerprint::bytes).orElse(null))
        .set(DELIVERY_DECISION.DECIDED_BY, person)
        .set(DELIVERY_DECISION.DECIDED_AT, OffsetDateTime.now(clock))
        .onConflict(
            DELIVERY_DECISION.DELIVERY_ID, DELIVERY_DECISION.ITEM_KEY, DELIVERY_DECISION.ALIKE)
        .doUpdate()
        .set(DELIVERY_DECISION.TAKE, excluded(DELIVERY_DECISION.TAKE))
        .set(DELIVERY_DECISION.TOGETHER, excluded(DELIVERY_DECISION.TOGETHER))
        .set(DELIVERY_DECISION.DECIDED_BY, excluded(DELIVERY_DECISION.DECIDED_BY))
        .set(DELIVERY_DECISION.DECIDED_AT, excluded(DELIVERY_DECISION.DECIDED_AT))
        .execute();
  }

  /**
   * Nothing is decided of an item any more.
   *
   * @param work of what students left on it; else of its clashes and twins
   */
  public void forget(UUID delivery, ItemKey item, boolean work) {
    db.deleteFrom(DELIVERY_DECISION)
        .where(DELIVERY_DECISION.DELIVERY_ID.eq(delivery))
        .and(DELIVERY_DECISION.ITEM_KEY.eq(item.value()))
        .and(DELIVERY_DECISION.OF_WORK.eq(work))
        .execute();
  }
}
