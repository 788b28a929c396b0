package org.zephyrmist.server.line;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Select;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.WaitsFor;
import org.zephyrmist.server.db.tables.Delivery;
import org.zephyrmist.server.db.tables.DeliveryLine;

/**
 * Several masters as one order: deliveries to the same sections, in each of which the frame comes
 * before the course, and the course before the small piece.
 */
@Component
public class Orders {
  private final DSLContext db;

  Orders(DSLContext db) {
    this.db = db;
  }

  /** All deliveries of the order that one belongs to, in their order; alone if it is none. */
  public List<UUID> of(UUID delivery) {
    Delivery one = DELIVERY.as("one");
    return db.select(DELIVERY.ID)
        .from(DELIVERY)
        .join(one)
        .on(one.ID.eq(delivery))
        .where(DELIVERY.ID.eq(one.ID).or(DELIVERY.ORDER_ID.eq(one.ORDER_ID)))
        .orderBy(DELIVERY.PLACE)
        .fetch(DELIVERY.ID);
  }

  /** Those that come after it in its order. */
  public List<UUID> after(UUID delivery) {
    List<UUID> all = of(delivery);
    return all.subList(all.indexOf(delivery) + 1, all.size());
  }

  /** Lines that come before this one in its section, the first first. */
  List<UUID> before(Line line) {
    return line.order().isEmpty()
        ? List.of()
        : db.select(DELIVERY_LINE.ID)
            .from(DELIVERY_LINE)
            .join(DELIVERY)
            .on(DELIVERY.ID.eq(DELIVERY_LINE.DELIVERY_ID))
            .where(DELIVERY.ORDER_ID.eq(line.order().get()))
            .and(DELIVERY.PLACE.lt(line.place()))
            .and(DELIVERY_LINE.SECTION_ID.eq(line.section()))
            .orderBy(DELIVERY.PLACE)
            .fetch(DELIVERY_LINE.ID);
  }

  /** The masters that are brought before this line's. */
  Set<UUID> mastersBefore(Line line) {
    return line.order().isEmpty()
        ? Set.of()
        : db.select(VERSION.MASTER_ID)
            .from(DELIVERY)
            .join(VERSION)
            .on(VERSION.ID.eq(DELIVERY.VERSION_ID))
            .where(DELIVERY.ORDER_ID.eq(line.order().get()))
            .and(DELIVERY.PLACE.lt(line.place()))
            .fetchSet(VERSION.MASTER_ID);
  }

  /** Whether one of these lines is in one of these states. */
  boolean any(List<UUID> lines, Set<LineState> states) {
    return !lines.isEmpty()
        && db.fetchExists(
            DELIVERY_LINE, DELIVERY_LINE.ID.in(lines).and(DELIVERY_LINE.STATE.in(states)));
  }

  /** On a row of {@code delivery_line} with its {@code delivery}: what comes before it there. */
  static Select<?> notDoneBefore() {
    return before(line -> line.STATE.ne(LineState.DONE));
  }

  /** The same: what before it there neither is done nor goes on by itself soon. */
  static Select<?> heldUpBefore() {
    Set<LineState> soon = EnumSet.of(LineState.DONE, LineState.TO_PLAN);
    soon.addAll(LineState.UNDER_WAY);
    return before(
        line ->
            line.STATE
                .notIn(soon)
                .and(line.WAITS_FOR.isNull().or(line.WAITS_FOR.ne(WaitsFor.BEFORE))));
  }

  private static Select<?> before(Function<DeliveryLine, Condition> state) {
    Delivery earlier = DELIVERY.as("earlier");
    DeliveryLine line = DELIVERY_LINE.as("earlier_line");
    return DSL.selectOne()
        .from(line)
        .join(earlier)
        .on(earlier.ID.eq(line.DELIVERY_ID))
        .where(earlier.ORDER_ID.eq(DELIVERY.ORDER_ID))
        .and(earlier.PLACE.lt(DELIVERY.PLACE))
        .and(line.SECTION_ID.eq(DELIVERY_LINE.SECTION_ID))
        .and(state.apply(line));
  }
}
