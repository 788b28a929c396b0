package org.zephyrmist.server.ledger;

import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.RECEIPT;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Consumer;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.SelectConditionStep;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Receipt;

/** The ledger itself, receipt by receipt, the newest first. */
@Component
public class Receipts {
  private static final int AT_ONCE = 1_000;
  private final DSLContext db;

  Receipts(DSLContext db) {
    this.db = db;
  }

  /**
   * What is looked for; what is empty does not matter.
   *
   * @param section part of a section's code
   * @param item part of an item's title
   * @param person part of a name
   * @param from the first moment
   * @param to the moment after the last
   */
  public record Sought(
      String section,
      Optional<UUID> master,
      Optional<Integer> version,
      String item,
      Optional<UUID> delivery,
      String person,
      Optional<OffsetDateTime> from,
      Optional<OffsetDateTime> to) {}

  /** A receipt with the names of what it is about. */
  public record Line(
      long id,
      OffsetDateTime at,
      UUID section,
      String code,
      UUID master,
      String masterCode,
      int number,
      Kind kind,
      String title,
      Receipt.How how,
      Set<Aspect> writes,
      String by,
      UUID delivery) {}

  /**
   * Some of them.
   *
   * @param within sections and masters that may be told
   * @param before only those with a lesser id
   */
  public List<Line> some(Sought s, Condition within, Optional<Long> before, int most) {
    return query(s, within)
        .and(before.map(RECEIPT.ID::lt).orElse(DSL.noCondition()))
        .orderBy(RECEIPT.ID.desc())
        .limit(most)
        .fetch(Receipts::line);
  }

  /** All of them, one after the other. */
  @Transactional(readOnly = true)
  public void each(Sought s, Condition within, Consumer<Line> take) {
    try (var cursor = query(s, within).orderBy(RECEIPT.ID.desc()).fetchSize(AT_ONCE).fetchLazy()) {
      cursor.forEach(r -> take.accept(line(r)));
    }
  }

  /** Names are looked up first: they are few, and receipts are many. */
  private SelectConditionStep<? extends Record> query(Sought s, Condition within) {
    Condition c = within;
    if (!s.section().isBlank()) {
      c =
          c.and(
              RECEIPT.SECTION_ID.in(
                  db.select(SECTION.ID)
                      .from(SECTION)
                      .where(SECTION.CODE.containsIgnoreCase(s.section()))
                      .fetch(SECTION.ID)));
    }
    if (!s.person().isBlank()) {
      c =
          c.and(
              RECEIPT.PERSON_ID.in(
                  db.select(PERSON.ID)
                      .from(PERSON)
                      .where(PERSON.NAME.containsIgnoreCase(s.person()))
                      .fetch(PERSON.ID)));
    }
    c = c.and(s.master().map(RECEIPT.MASTER_ID::eq).orElse(DSL.noCondition()));
    c = c.and(s.version().map(VERSION.NUMBER::eq).orElse(DSL.noCondition()));
    c = c.and(s.delivery().map(RECEIPT.DELIVERY_ID::eq).orElse(DSL.noCondition()));
    c = c.and(s.from().map(RECEIPT.AT::ge).orElse(DSL.noCondition()));
    c = c.and(s.to().map(RECEIPT.AT::lt).orElse(DSL.noCondition()));
    if (!s.item().isBlank()) {
      c = c.and(RECEIPT.TITLE.containsIgnoreCase(s.item()));
    }
    return db.select(
            RECEIPT.ID,
            RECEIPT.AT,
            RECEIPT.SECTION_ID,
            RECEIPT.MASTER_ID,
            RECEIPT.ITEM_KIND,
            RECEIPT.TITLE,
            RECEIPT.HOW,
            RECEIPT.WRITES,
            RECEIPT.DELIVERY_ID,
            SECTION.CODE,
            MASTER.CODE,
            VERSION.NUMBER,
            PERSON.NAME)
        .from(RECEIPT)
        .join(SECTION)
        .on(SECTION.ID.eq(RECEIPT.SECTION_ID))
        .join(MASTER)
        .on(MASTER.ID.eq(RECEIPT.MASTER_ID))
        .join(VERSION)
        .on(VERSION.ID.eq(RECEIPT.VERSION_ID))
        .join(PERSON)
        .on(PERSON.ID.eq(RECEIPT.PERSON_ID))
        .where(c);
  }

  private static Line line(Record r) {
    return new Line(
        r.get(RECEIPT.ID),
        r.get(RECEIPT.AT),
        r.get(RECEIPT.SECTION_ID),
        r.get(SECTION.CODE),
        r.get(RECEIPT.MASTER_ID),
        r.get(MASTER.CODE),
        r.get(VERSION.NUMBER),
        r.get(RECEIPT.ITEM_KIND),
        r.get(RECEIPT.TITLE),
        r.get(RECEIPT.HOW),
        Aspect.set(r.get(RECEIPT.WRITES)),
        r.get(PERSON.NAME),
        r.get(RECEIPT.DELIVERY_ID));
  }
}
