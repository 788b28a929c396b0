package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;

import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.server.line.Orders;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Plans that nobody wants any more, and what deliveries are called. */
@Component
class Plans {
  private final DSLContext db;
  private final Deliveries deliveries;
  private final Orders orders;
  private final Events events;

  Plans(DSLContext db, Deliveries deliveries, Orders orders, Events events) {
    this.db = db;
    this.deliveries = deliveries;
    this.orders = orders;
    this.events = events;
  }

  /**
   * Throws a plan away, with the others of its order. Nothing of it has moved, so nothing is lost
   * but the plan; what was delivered stays in the record for ever.
   */
  @Transactional
  void throwAway(UUID id, SignedIn who) {
    deliveries.own(id, who);
    List<UUID> order = orders.of(id);
    order.forEach(each -> deliveries.own(each, who));
    int sections = db.fetchCount(DELIVERY_LINE, DELIVERY_LINE.DELIVERY_ID.in(order));
    int gone =
        db.deleteFrom(DELIVERY)
            .where(DELIVERY.ID.in(order))
            .and(DELIVERY.CONFIRMED_AT.isNull())
            .execute();
    if (gone < order.size()) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "It has been confirmed: it is in the record, and no plan any more.",
          "Stop it, or take it back.");
    }
    events.add(who.id(), "threw away a plan", "", "for " + sections + " sections", "/deliveries");
  }

  /** An empty name takes it away again. */
  @Transactional
  void name(UUID id, String name, SignedIn who) {
    deliveries.own(id, who);
    db.update(DELIVERY)
        .set(DELIVERY.NAME, Titles.clean(name))
        .where(DELIVERY.ID.in(orders.of(id)))
        .execute();
  }
}
