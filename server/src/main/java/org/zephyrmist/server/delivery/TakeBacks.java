package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.DELIVERY_STEP;
import static org.zephyrmist.server.db.Tables.SECTION;

import jakarta.validation.constraints.NotNull;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.PartsChoice;
import org.zephyrmist.server.db.tables.records.DeliveryLineRecord;
import org.zephyrmist.server.db.tables.records.DeliveryRecord;
import org.zephyrmist.server.ledger.Past;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Deliveries that take another back, whole or in some sections. */
@Component
class TakeBacks {
  /** As a take-back goes about it at first: what was changed since stays. */
  static final Choices CHOICES =
      new Choices(
          Choices.Clash.KEEP_SECTION,
          Choices.Twin.ADD,
          Choices.Arrival.AS_IN_MASTER,
          Choices.Dates.ALONG);

  private final DSLContext db;
  private final Deliveries deliveries;
  private final Past past;

  TakeBacks(DSLContext db, Deliveries deliveries, Past past) {
    this.db = db;
    this.deliveries = deliveries;
    this.past = past;
  }

  /** Why a section's part cannot be taken back. */
  enum Why {
    /** Nothing was done there. */
    NOTHING_DONE,
    /** It is being written just now. */
    UNDER_WAY,
    /** Something of the same master came there later, which has to be taken back first. */
    RECEIVED_SINCE,
    /** It was delivered before it was noted where a section had stood. */
    TOO_LONG_AGO
  }

  record NotTaken(@NotNull UUID section, @NotNull String code, @NotNull Why why) {}

  /**
   * What of a delivery can be taken back.
   *
   * @param sections in which it can
   */
  record CanTakeBack(@NotNull List<UUID> sections, @NotNull List<NotTaken> not) {}

  CanTakeBack can(UUID delivery, SignedIn who) {
    deliveries.own(delivery, who);
    List<UUID> done = new ArrayList<>();
    List<NotTaken> not = new ArrayList<>();
    Field<Boolean> did =
        DSL.field(Past.noted(DELIVERY_LINE.DELIVERY_ID, DELIVERY_LINE.SECTION_ID).or(carriedOut()))
            .as("did");
    var rows =
        db.select(DELIVERY_LINE.fields())
            .select(SECTION.CODE, did)
            .from(DELIVERY_LINE)
            .join(SECTION)
            .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
            .where(DELIVERY_LINE.DELIVERY_ID.eq(delivery))
            .orderBy(SECTION.CODE, SECTION.ID)
            .fetch();
    Set<UUID> since =
        past.receivedSince(delivery, rows.map(r -> r.get(DELIVERY_LINE.SECTION_ID)), delivery);
    for (var r : rows) {
      DeliveryLineRecord l = r.into(DELIVERY_LINE);
      Optional<Why> why = why(l, since, r.get(did));
      if (why.isPresent()) {
        not.add(new NotTaken(l.getSectionId(), r.get(SECTION.CODE), why.get()));
      } else {
        done.add(l.getSectionId());
      }
    }
    return new CanTakeBack(done, not);
  }

  /** The shell was changed by it: what no master brought is in no ledger. */
  private static Condition carriedOut() {
    return DSL.exists(
        DSL.selectOne()
            .from(DELIVERY_STEP)
            .where(DELIVERY_STEP.LINE_ID.eq(DELIVERY_LINE.ID))
            .and(DELIVERY_STEP.RECORDED)
            .and(DELIVERY_STEP.MOVES));
  }

  /**
   * @param did false: nothing of the shell or of the ledger was changed, so there is nothing that
   *     could be taken back, whatever came since
   */
  private static Optional<Why> why(DeliveryLineRecord l, Set<UUID> since, boolean did) {
    if (LineState.UNDER_WAY.contains(l.getState())) {
      return Optional.of(Why.UNDER_WAY);
    }
    if (!l.getStood()) {
      return Optional.of(l.getState() == LineState.DONE ? Why.TOO_LONG_AGO : Why.NOTHING_DONE);
    }
    if (!did) {
      return Optional.of(Why.NOTHING_DONE);
    }
    return since.contains(l.getSectionId()) ? Optional.of(Why.RECEIVED_SINCE) : Optional.empty();
  }

  /**
   * A delivery that takes another back, to be looked at and confirmed like any.
   *
   * @param sections only in these; none: wherever it can be
   */
  @Transactional
  UUID make(UUID delivery, Optional<List<UUID>> sections, SignedIn who) {
    DeliveryRecord d = deliveries.own(delivery, who);
    CanTakeBack can = can(delivery, who);
    List<UUID> some =
        sections
            .map(chosen -> can.sections().stream().filter(new HashSet<>(chosen)::contains).toList())
            .orElse(can.sections());
    if (some.isEmpty()) {
      throw new Refusal(
          HttpStatus.CONFLICT, "Nothing of this delivery can be taken back there.", remedy(can));
    }
    return deliveries.make(
        d.getVersionId(),
        some,
        new Deliveries.Order(
            PartsChoice.EVERYTHING,
            CHOICES,
            Optional.empty(),
            Optional.of(delivery),
            Optional.empty()),
        who);
  }

  private static String remedy(CanTakeBack can) {
    Set<Why> whys = new HashSet<>(can.not().stream().map(NotTaken::why).toList());
    if (whys.contains(Why.RECEIVED_SINCE)) {
      return "Take back first what came there later.";
    }
    return whys.contains(Why.UNDER_WAY)
        ? "Stop it first, or wait until it has ended."
        : "Nothing was done there, or it was long ago.";
  }
}
