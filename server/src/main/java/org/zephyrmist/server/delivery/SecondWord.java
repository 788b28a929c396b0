package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.DELIVERY_STEP;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.SECOND_WORD;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.delivery.Tell;
import org.zephyrmist.server.db.tables.records.DeliveryRecord;
import org.zephyrmist.server.people.SignedIn;

/** Large deliveries, and those that remove anything, may need a second person's word. */
@Component
class SecondWord {
  private final DSLContext db;
  private final Clock clock;

  SecondWord(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /**
   * When it is needed.
   *
   * @param fromSections from a delivery to so many sections; none: whatever its size
   * @param removes for one that removes anything
   */
  record Rule(Optional<Integer> fromSections, boolean removes) {}

  Rule rule() {
    return db.selectFrom(SECOND_WORD)
        .fetchSingle(r -> new Rule(Optional.ofNullable(r.getFromSections()), r.getRemoves()));
  }

  void change(Rule to) {
    db.update(SECOND_WORD)
        .set(SECOND_WORD.FROM_SECTIONS, to.fromSections().orElse(null))
        .set(SECOND_WORD.REMOVES, to.removes())
        .execute();
  }

  /** Why an order needs it. */
  enum Why {
    SECTIONS,
    REMOVES
  }

  /**
   * Why deliveries that are confirmed together need a second word; none if they do not.
   *
   * @param order all of them
   */
  Optional<Why> needed(List<UUID> order) {
    Rule rule = rule();
    int sections =
        db.fetchCount(
            db.selectDistinct(DELIVERY_LINE.SECTION_ID)
                .from(DELIVERY_LINE)
                .where(DELIVERY_LINE.DELIVERY_ID.in(order)));
    if (rule.fromSections().filter(n -> sections >= n).isPresent()) {
      return Optional.of(Why.SECTIONS);
    }
    return rule.removes() && removes(order) ? Optional.of(Why.REMOVES) : Optional.empty();
  }

  private boolean removes(List<UUID> order) {
    return db.fetchExists(DELIVERY, DELIVERY.ID.in(order).and(DELIVERY.ONTO.eq(Choices.Onto.CLEAN)))
        || db.fetchExists(
            db.selectOne()
                .from(DELIVERY_STEP)
                .join(DELIVERY_LINE)
                .on(DELIVERY_LINE.ID.eq(DELIVERY_STEP.LINE_ID))
                .where(DELIVERY_LINE.DELIVERY_ID.in(order))
                .and(DELIVERY_STEP.KIND.eq(DSL.inline(StepKind.RETIRE, DELIVERY_STEP.KIND))));
  }

  /** Who asked for it, and when. */
  record Asked(UUID by, String name, OffsetDateTime at) {}

  Optional<Asked> asked(UUID delivery) {
    return db.select(DELIVERY.ASKED_BY, PERSON.NAME, DELIVERY.ASKED_AT)
        .from(DELIVERY)
        .join(PERSON)
        .on(PERSON.ID.eq(DELIVERY.ASKED_BY))
        .where(DELIVERY.ID.eq(delivery))
        .fetchOptional(r -> new Asked(r.value1(), r.value2(), r.value3()));
  }

  /** Notes how it is to begin once somebody else has said so. */
  void ask(DeliveryRecord d, Optional<OffsetDateTime> at, Tell tell, String note, SignedIn who) {
    db.update(DELIVERY)
        .set(DELIVERY.ASKED_BY, who.id())
        .set(DELIVERY.ASKED_AT, OffsetDateTime.now(clock))
        .set(DELIVERY.BEGINS_AT, at.orElse(null))
        .set(DELIVERY.TELL, tell)
        .set(DELIVERY.NOTE, note)
        .where(DELIVERY.ID.eq(d.getId()))
        .execute();
  }
}
