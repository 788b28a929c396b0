package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.DeliveryState;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.PartsChoice;
import org.zephyrmist.server.db.tables.records.DeliveryRecord;
import org.zephyrmist.server.line.Orders;
import org.zephyrmist.server.line.PlanLine;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.queue.Queue;
import org.zephyrmist.server.web.Refusal;

/** Changes what was ordered until it is confirmed; what follows from it is planned anew. */
@Component
public class Replans {
  private final DSLContext db;
  private final Deliveries deliveries;
  private final LineStates states;
  private final Orders orders;
  private final Queue queue;

  Replans(DSLContext db, Deliveries deliveries, LineStates states, Orders orders, Queue queue) {
    this.db = db;
    this.deliveries = deliveries;
    this.states = states;
    this.orders = orders;
    this.queue = queue;
  }

  /** Other choices: everything is planned anew. */
  @Transactional
  public void choose(
      UUID id,
      Optional<PartsChoice> parts,
      Choices choices,
      Optional<Integer> atOnce,
      SignedIn who) {
    DeliveryRecord d = deliveries.own(id, who);
    if (d.getTakesBack() != null) {
      chooseBack(d, choices.clash());
      return;
    }
    parts.ifPresent(p -> deliveries.something(d.getVersionId(), p));
    if (d.getConfirmedAt() != null) {
      throw new Refusal(
          HttpStatus.CONFLICT, "This delivery has started.", "Make a new one with other choices.");
    }
    int changed =
        db.update(DELIVERY)
            .set(DELIVERY.CLASH, choices.clash())
            .set(DELIVERY.TWIN, choices.twin())
            .set(DELIVERY.ARRIVAL, choices.arrival())
            .set(DELIVERY.DATES, choices.dates())
            .set(DELIVERY.EMPTIED, choices.emptied())
            .set(DELIVERY.ONTO, choices.onto())
            .set(DELIVERY.WEEKS, choices.weeks())
            .set(DELIVERY.BY_KIND, deliveries.json(choices.byKind()))
            .set(DELIVERY.AT_ONCE, atOnce.orElse(null))
            .set(DELIVERY.PARTS, parts.map(deliveries::json).orElse(d.getParts()))
            .set(DELIVERY.STATE, DeliveryState.PLANNING)
            .where(DELIVERY.ID.eq(id))
            .and(DELIVERY.STATE.eq(DeliveryState.PLANNED))
            .execute();
    planAll(id, changed);
  }

  /** Of a delivery that takes another back only what becomes of later changes can be chosen. */
  private void chooseBack(DeliveryRecord d, Choices.Clash clash) {
    planAll(
        d.getId(),
        db.update(DELIVERY)
            .set(DELIVERY.CLASH, clash)
            .set(DELIVERY.STATE, DeliveryState.PLANNING)
            .where(DELIVERY.ID.eq(d.getId()))
            .and(DELIVERY.STATE.eq(DeliveryState.PLANNED))
            .execute());
  }

  private void planAll(UUID id, int changed) {
    if (changed == 0) {
      throw new Refusal(
          HttpStatus.CONFLICT, "The plan is still being made.", "Choose when it is there.");
    }
    nobodyAsked(id);
    queue.put(
        PlanLine.NAME,
        states.move(
            id, LineState.TO_PLAN, LineState.PLANNED, LineState.NEEDS_PERSON, LineState.NOT_YET));
    for (UUID later : orders.after(id)) {
      planning(later);
      queue.put(
          PlanLine.NAME,
          states.move(
              later,
              LineState.TO_PLAN,
              LineState.PLANNED,
              LineState.NEEDS_PERSON,
              LineState.NOT_YET));
    }
  }

  /** A second word that was asked for was about another plan, of whatever part of the order. */
  private void nobodyAsked(UUID id) {
    db.update(DELIVERY)
        .setNull(DELIVERY.ASKED_BY)
        .setNull(DELIVERY.ASKED_AT)
        .where(DELIVERY.ID.in(orders.of(id)))
        .execute();
  }

  private void planning(UUID id) {
    db.update(DELIVERY)
        .set(DELIVERY.STATE, DeliveryState.PLANNING)
        .where(DELIVERY.ID.eq(id))
        .execute();
  }

  /** Makes sure, within the running transaction, that there is a plan which nobody confirmed. */
  void stillPlanned(UUID id) {
    DeliveryRecord d = db.selectFrom(DELIVERY).where(DELIVERY.ID.eq(id)).forUpdate().fetchSingle();
    if (d.getState() != DeliveryState.PLANNED || d.getConfirmedAt() != null) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          d.getConfirmedAt() == null
              ? "The plan is still being made."
              : "This delivery has started already.",
          "Look at its page.");
    }
  }

  /** Some lines are planned anew, before the delivery is confirmed, and what follows them. */
  int planAnew(UUID id, Collection<UUID> lines) {
    int moved = planAnewAlone(id, lines);
    nobodyAsked(id);
    for (UUID later : orders.after(id)) {
      planAnewAlone(
          later,
          db.select(DELIVERY_LINE.ID)
              .from(DELIVERY_LINE)
              .where(DELIVERY_LINE.DELIVERY_ID.eq(later))
              .and(
                  DELIVERY_LINE.SECTION_ID.in(
                      db.select(DELIVERY_LINE.SECTION_ID)
                          .from(DELIVERY_LINE)
                          .where(DELIVERY_LINE.ID.in(lines))))
              .fetch(DELIVERY_LINE.ID));
    }
    return moved;
  }

  private int planAnewAlone(UUID id, Collection<UUID> lines) {
    List<UUID> moved =
        db.update(DELIVERY_LINE)
            .set(DELIVERY_LINE.STATE, LineState.TO_PLAN)
            .set(DELIVERY_LINE.ATTEMPTS, 0)
            .where(DELIVERY_LINE.DELIVERY_ID.eq(id))
            .and(DELIVERY_LINE.ID.in(lines))
            .and(
                DELIVERY_LINE.STATE.in(
                    LineState.PLANNED, LineState.NEEDS_PERSON, LineState.NOT_YET))
            .returning(DELIVERY_LINE.ID)
            .fetch(DELIVERY_LINE.ID);
    if (!moved.isEmpty()) {
      planning(id);
      queue.put(PlanLine.NAME, moved);
    }
    return moved.size();
  }
}
