package org.zephyrmist.server.line;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.KEPT_SHELL;
import static org.zephyrmist.server.db.Tables.SECTION;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Select;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.delivery.DeliveryState;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.WaitsFor;

/** Lets lines go on by themselves when what they waited for has come. */
@Component
public class GoingOn {
  private final DSLContext db;
  private final Clock clock;

  GoingOn(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  private Condition begun() {
    return DELIVERY
        .CONFIRMED_AT
        .isNotNull()
        .and(DELIVERY.BEGINS_AT.isNull().or(DELIVERY.BEGINS_AT.le(OffsetDateTime.now(clock))));
  }

  /** Lines whose time or shell has come; they wait for their turn now. */
  @Transactional
  public List<UUID> ready() {
    return waiting(
        db.select(DELIVERY_LINE.ID)
            .from(DELIVERY_LINE)
            .join(DELIVERY)
            .on(DELIVERY.ID.eq(DELIVERY_LINE.DELIVERY_ID))
            .join(SECTION)
            .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
            .where(DELIVERY_LINE.STATE.eq(DSL.inline(LineState.NOT_YET, DELIVERY_LINE.STATE)))
            .and(begun())
            .and(
                DELIVERY_LINE
                    .WAITS_FOR
                    .eq(WaitsFor.TIME)
                    .or(DELIVERY_LINE.WAITS_FOR.eq(WaitsFor.SHELL).and(SECTION.SHELL.isNotNull()))
                    .or(
                        DELIVERY_LINE
                            .WAITS_FOR
                            .eq(WaitsFor.PACKAGE)
                            .and(DSL.notExists(packageWaits())))
                    .or(
                        DELIVERY_LINE
                            .WAITS_FOR
                            .eq(WaitsFor.BEFORE)
                            .and(DSL.notExists(Orders.notDoneBefore()))))
            .fetch(DELIVERY_LINE.ID));
  }

  private static Select<?> packageWaits() {
    return DSL.selectOne()
        .from(KEPT_SHELL)
        .where(KEPT_SHELL.SECTION_ID.eq(DELIVERY_LINE.SECTION_ID))
        .and(KEPT_SHELL.PACKAGE_AT.isNotNull());
  }

  /** Whether lines of confirmed deliveries wait for shells that are nowhere. */
  boolean lacksShells() {
    return db.fetchExists(
        db.selectOne()
            .from(DELIVERY_LINE)
            .join(DELIVERY)
            .on(DELIVERY.ID.eq(DELIVERY_LINE.DELIVERY_ID))
            .join(SECTION)
            .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
            .where(DELIVERY_LINE.STATE.eq(DSL.inline(LineState.NOT_YET, DELIVERY_LINE.STATE)))
            .and(DELIVERY_LINE.WAITS_FOR.eq(WaitsFor.SHELL))
            .and(DELIVERY.CONFIRMED_AT.isNotNull())
            .and(SECTION.SHELL.isNull())
            .and(SECTION.IN_ROSTER));
  }

  /** Lines whose shells are to be looked at again, whether they are empty now. */
  List<UUID> toLookAt() {
    return db.select(DELIVERY_LINE.ID)
        .from(DELIVERY_LINE)
        .join(DELIVERY)
        .on(DELIVERY.ID.eq(DELIVERY_LINE.DELIVERY_ID))
        .where(DELIVERY_LINE.STATE.eq(DSL.inline(LineState.NOT_YET, DELIVERY_LINE.STATE)))
        .and(DELIVERY_LINE.WAITS_FOR.eq(WaitsFor.EMPTY))
        .and(DELIVERY_LINE.NEXT_TRY.le(OffsetDateTime.now(clock)))
        .and(begun())
        .fetch(DELIVERY_LINE.ID);
  }

  /** They wait for their turn, and their deliveries run again. */
  @Transactional
  public List<UUID> waiting(Collection<UUID> lines) {
    if (lines.isEmpty()) {
      return List.of();
    }
    var moved =
        db.update(DELIVERY_LINE)
            .set(DELIVERY_LINE.STATE, LineState.WAITING)
            .setNull(DELIVERY_LINE.WAITS_FOR)
            .setNull(DELIVERY_LINE.REASON)
            .setNull(DELIVERY_LINE.REMEDY)
            .setNull(DELIVERY_LINE.NEXT_TRY)
            .where(DELIVERY_LINE.ID.in(lines))
            .and(DELIVERY_LINE.STATE.eq(LineState.NOT_YET))
            .returning(DELIVERY_LINE.ID, DELIVERY_LINE.DELIVERY_ID)
            .fetch();
    Set<UUID> deliveries = moved.intoSet(DELIVERY_LINE.DELIVERY_ID);
    db.selectOne() // in the order in which whoever looks for their end locks them
        .from(DELIVERY)
        .where(DELIVERY.ID.in(deliveries))
        .orderBy(DELIVERY.ID)
        .forUpdate()
        .fetch();
    db.update(DELIVERY)
        .set(DELIVERY.STATE, DeliveryState.RUNNING)
        .setNull(DELIVERY.FINISHED_AT)
        .where(DELIVERY.ID.in(deliveries))
        .execute();
    return moved.map(r -> r.getId());
  }

  /** What it waited for will never come; another plan begins anew. */
  public void stop(UUID line) {
    db.update(DELIVERY_LINE)
        .set(DELIVERY_LINE.STATE, LineState.STOPPED)
        .setNull(DELIVERY_LINE.WAITS_FOR)
        .setNull(DELIVERY_LINE.NEXT_TRY)
        .setNull(DELIVERY_LINE.REASON)
        .setNull(DELIVERY_LINE.REMEDY)
        .where(DELIVERY_LINE.ID.eq(line))
        .execute();
  }
}
