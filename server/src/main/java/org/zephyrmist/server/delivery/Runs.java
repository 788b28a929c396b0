package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.delivery.DeliveryState;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.Tell;
import org.zephyrmist.core.delivery.WaitsFor;
import org.zephyrmist.server.db.tables.records.DeliveryRecord;
import org.zephyrmist.server.line.LineEnds;
import org.zephyrmist.server.line.Orders;
import org.zephyrmist.server.line.RunLine;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.queue.Queue;
import org.zephyrmist.server.web.Refusal;

/** Starts deliveries, stops them and goes on with them. */
@Component
public class Runs {
  private final DSLContext db;
  private final Deliveries deliveries;
  private final Replans replans;
  private final LineStates states;
  private final LineEnds ends;
  private final Queue queue;
  private final Events events;
  private final Clock clock;
  private final Orders orders;
  private final SecondWord secondWord;

  Runs(
      DSLContext db,
      Deliveries deliveries,
      Replans replans,
      LineStates states,
      LineEnds ends,
      Queue queue,
      Events events,
      Clock clock,
      Orders orders,
      SecondWord secondWord) {
    this.orders = orders;
    this.secondWord = secondWord;
    this.db = db;
    this.deliveries = deliveries;
    this.replans = replans;
    this.states = states;
    this.ends = ends;
    this.queue = queue;
    this.events = events;
    this.clock = clock;
  }

  /**
   * The one confirmation; from here on lines are written.
   *
   * @param at when it begins; none: now
   * @param note why it comes, for those who are told
   */
  @Transactional
  public void confirm(UUID id, Optional<OffsetDateTime> at, Tell tell, String note, SignedIn who) {
    deliveries.own(id, who);
    at.ifPresent(this::ahead);
    List<UUID> order = orders.of(id);
    if (secondWord.needed(order).isPresent()) {
      Optional<SecondWord.Asked> asked = secondWord.asked(id).filter(a -> !a.by().equals(who.id()));
      if (asked.isEmpty()) {
        ask(order, at, tell, note, who);
      } else if (who.role() == Role.DESIGNER) {
        throw new Refusal(
            HttpStatus.FORBIDDEN,
            "The second word is a coordinator’s.",
            "Ask one to confirm this delivery.");
      } else {
        DeliveryRecord d = deliveries.own(id, who);
        begin(order, Optional.ofNullable(d.getBeginsAt()), d.getTell(), d.getNote(), who);
      }
      return;
    }
    begin(order, at, tell, note, who);
  }

  /** Nothing begins before another person confirms it too. */
  private void ask(
      List<UUID> order, Optional<OffsetDateTime> at, Tell tell, String note, SignedIn who) {
    for (UUID each : order) {
      DeliveryRecord d = deliveries.own(each, who);
      replans.stillPlanned(each);
      secondWord.ask(d, at, tell, note, who);
      events.add(who.id(), "asked for a second word on delivery of", what(d), "", page(each));
    }
  }

  private void begin(
      List<UUID> order, Optional<OffsetDateTime> planned, Tell tell, String note, SignedIn who) {
    Optional<OffsetDateTime> at = planned.filter(OffsetDateTime.now(clock)::isBefore);
    order.forEach(each -> confirmOne(each, at, tell, note, who));
  }

  private void confirmOne(
      UUID id, Optional<OffsetDateTime> at, Tell tell, String note, SignedIn who) {
    DeliveryRecord d = deliveries.own(id, who);
    deliveries.inUse(d);
    int changed =
        db.update(DELIVERY)
            .set(DELIVERY.STATE, at.isPresent() ? DeliveryState.SCHEDULED : DeliveryState.RUNNING)
            .set(DELIVERY.BEGINS_AT, at.orElse(null))
            .set(DELIVERY.TELL, tell)
            .set(DELIVERY.NOTE, note)
            .set(DELIVERY.CONFIRMED_BY, who.id())
            .set(DELIVERY.CONFIRMED_AT, OffsetDateTime.now(clock))
            .where(DELIVERY.ID.eq(id))
            .and(DELIVERY.STATE.eq(DeliveryState.PLANNED))
            .execute();
    if (changed == 0) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          d.getConfirmedAt() == null
              ? "The plan is still being made."
              : "This delivery has started already.",
          "Look at its page.");
    }
    List<UUID> lines =
        at.isPresent() ? atTime(id) : states.move(id, LineState.WAITING, LineState.PLANNED);
    if (at.isEmpty()) {
      queue.put(RunLine.NAME, lines);
      ends.check(id);
    }
    events.add(who.id(), "confirmed delivery of", what(d), lines.size() + " sections", page(id));
  }

  private void ahead(OffsetDateTime at) {
    OffsetDateTime now = OffsetDateTime.now(clock);
    if (at.isBefore(now) || at.isAfter(now.plusYears(1))) {
      throw Refusal.bad(
          at.isBefore(now) ? "This time is past." : "This time is more than a year ahead.",
          "Choose a time that is still to come, or deliver now.");
    }
  }

  private List<UUID> atTime(UUID id) {
    List<UUID> lines = states.move(id, LineState.NOT_YET, LineState.PLANNED);
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.WAITS_FOR, WaitsFor.TIME)
        .where(DELIVERY_LINE.ID.in(lines))
        .execute();
    return lines;
  }

  /** Lines that have not begun do not begin; those under way are finished. */
  @Transactional
  public void stop(UUID id, SignedIn who) {
    deliveries.own(id, who);
    orders.of(id).forEach(each -> stopOne(each, who));
  }

  private void stopOne(UUID id, SignedIn who) {
    DeliveryRecord d = deliveries.own(id, who);
    int stopped =
        states
            .move(
                id,
                LineState.STOPPED,
                LineState.WAITING,
                LineState.TRYING_AGAIN,
                LineState.ACCEPTED,
                LineState.NOT_YET)
            .size();
    db.update(DELIVERY)
        .set(DELIVERY.STATE, DeliveryState.STOPPED)
        .setNull(DELIVERY.BEGINS_AT)
        .where(DELIVERY.ID.eq(id))
        .and(
            DELIVERY
                .STATE
                .in(DeliveryState.RUNNING, DeliveryState.SCHEDULED)
                .or(DELIVERY.CONFIRMED_AT.isNotNull().and(DSL.condition(stopped > 0))))
        .execute();
    events.add(who.id(), "stopped delivery of", what(d), "", page(id));
  }

  /** Goes on with lines that stopped or wait for a person. */
  @Transactional
  public void goOn(UUID id, SignedIn who) {
    DeliveryRecord d = deliveries.own(id, who);
    if (d.getConfirmedAt() == null) {
      throw new Refusal(HttpStatus.CONFLICT, "It has not started yet.", "Deliver it first.");
    }
    List<UUID> lines =
        states.move(id, LineState.WAITING, LineState.STOPPED, LineState.NEEDS_PERSON);
    db.update(DELIVERY)
        .set(DELIVERY.STATE, DeliveryState.RUNNING)
        .setNull(DELIVERY.FINISHED_AT)
        .where(DELIVERY.ID.eq(id))
        .execute();
    queue.put(RunLine.NAME, lines);
    ends.check(id);
    orders.after(id).forEach(later -> goOnBehind(later));
    events.add(who.id(), "went on with delivery of", what(d), lines.size() + " sections", page(id));
  }

  /** What was stopped with it goes on behind it. */
  private void goOnBehind(UUID later) {
    List<UUID> lines = states.move(later, LineState.WAITING, LineState.STOPPED);
    if (!lines.isEmpty()) {
      db.update(DELIVERY)
          .set(DELIVERY.STATE, DeliveryState.RUNNING)
          .setNull(DELIVERY.FINISHED_AT)
          .where(DELIVERY.ID.eq(later))
          .execute();
      queue.put(RunLine.NAME, lines);
    }
  }

  private static String page(UUID delivery) {
    return "/deliveries/" + delivery;
  }

  /** The delivery in words, for the record. */
  private String what(DeliveryRecord d) {
    return db.select(MASTER.CODE, VERSION.NUMBER)
        .from(VERSION)
        .join(MASTER)
        .on(MASTER.ID.eq(VERSION.MASTER_ID))
        .where(VERSION.ID.eq(d.getVersionId()))
        .fetchSingle(r -> r.value1() + ", version " + r.value2());
  }
}
