package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.Arrays;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Notices when the last line of a delivery has come to rest. */
@Component
class LineEnds {
  private final DSLContext db;
  private final Clock clock;

  LineEnds(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /** Looks only once nobody else changes the delivery, who might set lines moving again. */
  @Transactional
  public void check(UUID delivery) {
    db.selectOne().from(DELIVERY).where(DELIVERY.ID.eq(delivery)).forUpdate().fetch();
    boolean moving = has(delivery, LineState.WAITING, LineState.RUNNING, LineState.TRYING_AGAIN);
    if (!moving && !has(delivery, LineState.TO_PLAN)) {
      db.update(DELIVERY)
          .set(DELIVERY.STATE, "PLANNED")
          .where(DELIVERY.ID.eq(delivery))
          .and(DELIVERY.STATE.eq("PLANNING"))
          .execute();
    }
    if (!moving) {
      db.update(DELIVERY)
          .set(DELIVERY.STATE, "DONE")
          .set(DELIVERY.FINISHED_AT, OffsetDateTime.now(clock))
          .where(DELIVERY.ID.eq(delivery))
          .and(DELIVERY.STATE.eq("RUNNING"))
          .execute();
    }
  }

  /** Every delivery that should have noticed. */
  void checkAll() {
    db.select(DELIVERY.ID)
        .from(DELIVERY)
        .where(DELIVERY.STATE.in("PLANNING", "RUNNING"))
        .andNotExists(
            db.selectOne()
                .from(DELIVERY_LINE)
                .where(DELIVERY_LINE.DELIVERY_ID.eq(DELIVERY.ID))
                .and(DELIVERY_LINE.STATE.in("TO_PLAN", "WAITING", "RUNNING", "TRYING_AGAIN")))
        .fetch(DELIVERY.ID)
        .forEach(this::check);
  }

  private boolean has(UUID delivery, LineState... states) {
    return db.fetchExists(
        db.selectFrom(DELIVERY_LINE)
            .where(DELIVERY_LINE.DELIVERY_ID.eq(delivery))
            .and(DELIVERY_LINE.STATE.in(Arrays.stream(states).map(Enum::name).toList())));
  }
}
