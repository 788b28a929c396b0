package org.zephyrmist.server.line;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.delivery.DeliveryState;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.WaitsFor;
import org.zephyrmist.server.mail.EndMails;

/** Notices when the last line of a delivery has come to rest. */
@Component
public class LineEnds {
  private final DSLContext db;
  private final Clock clock;
  private final EndMails mails;
  private final Orders orders;

  LineEnds(DSLContext db, Clock clock, EndMails mails, Orders orders) {
    this.orders = orders;
    this.mails = mails;
    this.db = db;
    this.clock = clock;
  }

  /** Looks only once nobody else changes its order, who might set lines moving again. */
  @Transactional
  public void check(UUID delivery) {
    List<UUID> order = orders.of(delivery);
    db.selectOne()
        .from(DELIVERY)
        .where(DELIVERY.ID.in(order))
        .orderBy(DELIVERY.ID)
        .forUpdate()
        .fetch();
    boolean moving = has(delivery, LineState.UNDER_WAY) || waitsBehind(delivery);
    if (!moving && !has(delivery, Set.of(LineState.TO_PLAN))) {
      db.update(DELIVERY)
          .set(DELIVERY.STATE, DeliveryState.PLANNED)
          .where(DELIVERY.ID.eq(delivery))
          .and(DELIVERY.STATE.eq(DeliveryState.PLANNING))
          .execute();
    }
    if (!moving
        && db.update(DELIVERY)
                .set(DELIVERY.STATE, DeliveryState.DONE)
                .set(DELIVERY.FINISHED_AT, OffsetDateTime.now(clock))
                .where(DELIVERY.ID.eq(delivery))
                .and(DELIVERY.STATE.eq(DeliveryState.RUNNING))
                .execute()
            > 0) {
      mails.ended(order);
    }
  }

  /** Every delivery that should have noticed. */
  void checkAll() {
    db.select(DELIVERY.ID)
        .from(DELIVERY)
        .where(DELIVERY.STATE.in(DeliveryState.PLANNING, DeliveryState.RUNNING))
        .andNotExists(
            db.selectOne()
                .from(DELIVERY_LINE)
                .where(DELIVERY_LINE.DELIVERY_ID.eq(DELIVERY.ID))
                .and(DELIVERY_LINE.STATE.in(LineState.ON_THE_QUEUE)))
        .fetch(DELIVERY.ID)
        .forEach(this::check);
  }

  /** What waits for another part of its order goes on soon, unless that part is held up itself. */
  private boolean waitsBehind(UUID delivery) {
    return db.fetchExists(
        db.selectOne()
            .from(DELIVERY_LINE)
            .join(DELIVERY)
            .on(DELIVERY.ID.eq(DELIVERY_LINE.DELIVERY_ID))
            .where(DELIVERY.ID.eq(delivery))
            .and(DELIVERY_LINE.STATE.eq(LineState.NOT_YET))
            .and(DELIVERY_LINE.WAITS_FOR.eq(WaitsFor.BEFORE))
            .andNotExists(Orders.heldUpBefore()));
  }

  private boolean has(UUID delivery, Set<LineState> states) {
    return db.fetchExists(
        db.selectFrom(DELIVERY_LINE)
            .where(DELIVERY_LINE.DELIVERY_ID.eq(delivery))
            .and(DELIVERY_LINE.STATE.in(states)));
  }
}
