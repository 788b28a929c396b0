package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;

import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.delivery.LineState;

/** Moves the lines of a delivery from state to state. */
@Component
class LineStates {
  private final DSLContext db;

  LineStates(DSLContext db) {
    this.db = db;
  }

  /** Those that were moved; what held them up is forgotten. */
  List<UUID> move(UUID delivery, LineState to, LineState... from) {
    return db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, to)
        .set(DELIVERY_LINE.ATTEMPTS, 0)
        .setNull(DELIVERY_LINE.WAITS_FOR)
        .setNull(DELIVERY_LINE.REASON)
        .setNull(DELIVERY_LINE.REMEDY)
        .setNull(DELIVERY_LINE.NEXT_TRY)
        .where(DELIVERY_LINE.DELIVERY_ID.eq(delivery))
        .and(DELIVERY_LINE.STATE.in(from))
        .returning(DELIVERY_LINE.ID)
        .fetch(DELIVERY_LINE.ID);
  }
}
