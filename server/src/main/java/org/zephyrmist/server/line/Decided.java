package org.zephyrmist.server.line;

import static org.jooq.impl.DSL.excluded;
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

/** What people decided of single steps, as it is stored. */
@Component
public class Decided {
  private final DSLContext db;
  private final Clock clock;

  Decided(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
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

  /** Keeps a decision in the place of an older one about the same. */
  public void keep(UUID delivery, Decisions.About about, Decisions.Decision decision, UUID person) {
    db.insertInto(DELIVERY_DECISION)
        .set(DELIVERY_DECISION.DELIVERY_ID, delivery)
        .set(DELIVERY_DECISION.ITEM_KEY, about.item().value())
        .set(DELIVERY_DECISION.ALIKE, about.alike().map(Fingerprint::bytes).orElse(null))
        .set(DELIVERY_DECISION.TAKE, decision.take())
        .set(DELIVERY_DECISION.TOGETHER, decision.together().map(Fingerprint::bytes).orElse(null))
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

  /** Nothing is decided of an item any more. */
  public void forget(UUID delivery, ItemKey item) {
    db.deleteFrom(DELIVERY_DECISION)
        .where(DELIVERY_DECISION.DELIVERY_ID.eq(delivery))
        .and(DELIVERY_DECISION.ITEM_KEY.eq(item.value()))
        .execute();
  }
}
