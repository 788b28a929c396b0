package org.zephyrmist.server.ledger;

import static org.jooq.impl.DSL.field;
import static org.jooq.impl.DSL.max;
import static org.jooq.impl.DSL.select;
import static org.zephyrmist.server.db.Tables.HOLDING;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.RECEIPT;
import static org.zephyrmist.server.db.Tables.STANDING;
import static org.zephyrmist.server.db.Tables.VERSION;

import jakarta.validation.constraints.NotNull;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Receipt;

/** What one section holds, and how it came, as people look at it. */
@Component
public class History {
  private final DSLContext db;

  History(DSLContext db) {
    this.db = db;
  }

  /** A master that a section holds. */
  public record HeldMaster(
      @NotNull UUID master,
      @NotNull String code,
      @NotNull String title,
      int number,
      int newest,
      int expected,
      int held,
      int changed,
      @NotNull OffsetDateTime readAt) {}

  /** An item that a section holds, with its last receipt. */
  public record ItemLine(
      @NotNull UUID master,
      @NotNull String key,
      @NotNull Kind kind,
      @NotNull String title,
      @NotNull String masterCode,
      int number,
      @NotNull OffsetDateTime at,
      @NotNull String by,
      @NotNull UUID delivery,
      @NotNull Receipt.How how,
      @NotNull Holding.State state,
      @NotNull Set<Aspect> changedHere) {}

  /** One receipt of an item. */
  public record ReceiptLine(
      int number,
      @NotNull Receipt.How how,
      @NotNull Set<Aspect> writes,
      @NotNull OffsetDateTime at,
      @NotNull String by,
      @NotNull UUID delivery) {}

  /** The masters that sections hold, by section. */
  public Map<UUID, List<HeldMaster>> masters(Collection<UUID> sections) {
    var n = VERSION.as("n");
    var newest = field(select(max(n.NUMBER)).from(n).where(n.MASTER_ID.eq(STANDING.MASTER_ID)));
    Map<UUID, List<HeldMaster>> all = new HashMap<>();
    db.select(STANDING.fields())
        .select(MASTER.CODE, MASTER.TITLE, VERSION.NUMBER, newest)
        .from(STANDING)
        .join(MASTER)
        .on(MASTER.ID.eq(STANDING.MASTER_ID))
        .join(VERSION)
        .on(VERSION.ID.eq(STANDING.VERSION_ID))
        .where(STANDING.SECTION_ID.in(sections))
        .orderBy(MASTER.CODE)
        .forEach(
            r ->
                all.computeIfAbsent(r.get(STANDING.SECTION_ID), k -> new ArrayList<>())
                    .add(
                        new HeldMaster(
                            r.get(STANDING.MASTER_ID),
                            r.get(MASTER.CODE),
                            r.get(MASTER.TITLE),
                            r.get(VERSION.NUMBER),
                            r.get(newest),
                            r.get(STANDING.EXPECTED),
                            r.get(STANDING.HELD),
                            r.get(STANDING.CHANGED),
                            r.get(STANDING.READ_AT))));
    return all;
  }

  /** Trees of the versions that a section holds, by master. */
  public Map<UUID, UUID> trees(UUID section) {
    return db.select(VERSION.MASTER_ID, VERSION.TREE_ID)
        .from(STANDING)
        .join(VERSION)
        .on(VERSION.ID.eq(STANDING.VERSION_ID))
        .where(STANDING.SECTION_ID.eq(section))
        .fetchMap(VERSION.MASTER_ID, VERSION.TREE_ID);
  }

  /** Every item that a section holds, in no order. */
  public List<ItemLine> items(UUID section) {
    return db.select(HOLDING.fields())
        .select(
            RECEIPT.AT, RECEIPT.HOW, RECEIPT.DELIVERY_ID, MASTER.CODE, VERSION.NUMBER, PERSON.NAME)
        .from(HOLDING)
        .join(RECEIPT)
        .on(RECEIPT.ID.eq(HOLDING.RECEIPT_ID))
        .join(MASTER)
        .on(MASTER.ID.eq(HOLDING.MASTER_ID))
        .join(VERSION)
        .on(VERSION.ID.eq(RECEIPT.VERSION_ID))
        .join(PERSON)
        .on(PERSON.ID.eq(RECEIPT.PERSON_ID))
        .where(HOLDING.SECTION_ID.eq(section))
        .fetch(
            r -> {
              Holding h = Holdings.holding(r.into(HOLDING));
              return new ItemLine(
                  h.master(),
                  h.base().key().value(),
                  h.base().kind(),
                  h.base().title(),
                  r.get(MASTER.CODE),
                  r.get(VERSION.NUMBER),
                  r.get(RECEIPT.AT),
                  r.get(PERSON.NAME),
                  r.get(RECEIPT.DELIVERY_ID),
                  r.get(RECEIPT.HOW),
                  h.state(),
                  h.here().map(x -> x.differing(h.base().shown())).orElse(Set.of()));
            });
  }

  /**
   * What a section held at a moment, by what had been delivered until then; whether the section had
   * changed it is not known of the past.
   */
  public List<ItemLine> items(UUID section, OffsetDateTime at) {
    var last = RECEIPT.as("last");
    var each =
        DSL.select(
                RECEIPT.ID,
                RECEIPT.MASTER_ID,
                RECEIPT.VERSION_ID,
                RECEIPT.PERSON_ID,
                RECEIPT.DELIVERY_ID,
                RECEIPT.ITEM_KEY,
                RECEIPT.ITEM_KIND,
                RECEIPT.TITLE,
                RECEIPT.AT,
                RECEIPT.HOW)
            .distinctOn(RECEIPT.MASTER_ID, RECEIPT.ITEM_KEY)
            .from(RECEIPT)
            .where(RECEIPT.SECTION_ID.eq(section))
            .and(RECEIPT.AT.le(at))
            .orderBy(RECEIPT.MASTER_ID.desc(), RECEIPT.ITEM_KEY.desc(), RECEIPT.ID.desc())
            .asTable(last);
    return db.select(
            last.MASTER_ID,
            last.ITEM_KEY,
            last.ITEM_KIND,
            last.TITLE,
            last.AT,
            last.DELIVERY_ID,
            last.HOW)
        .select(MASTER.CODE, VERSION.NUMBER, PERSON.NAME)
        .from(each)
        .join(MASTER)
        .on(MASTER.ID.eq(last.MASTER_ID))
        .join(VERSION)
        .on(VERSION.ID.eq(last.VERSION_ID))
        .join(PERSON)
        .on(PERSON.ID.eq(last.PERSON_ID))
        .where(last.HOW.notIn(Receipt.How.RETIRED, Receipt.How.GIVEN_BACK))
        .fetch(
            r ->
                new ItemLine(
                    r.get(last.MASTER_ID),
                    r.get(last.ITEM_KEY),
                    r.get(last.ITEM_KIND),
                    r.get(last.TITLE),
                    r.get(MASTER.CODE),
                    r.get(VERSION.NUMBER),
                    r.get(last.AT),
                    r.get(PERSON.NAME),
                    r.get(last.DELIVERY_ID),
                    r.get(last.HOW),
                    Holding.State.AS_DELIVERED,
                    Set.of()));
  }

  /** All receipts of one item in a section, newest first. */
  public List<ReceiptLine> receipts(UUID section, UUID master, ItemKey key) {
    return db.select(
            VERSION.NUMBER,
            RECEIPT.HOW,
            RECEIPT.WRITES,
            RECEIPT.AT,
            PERSON.NAME,
            RECEIPT.DELIVERY_ID)
        .from(RECEIPT)
        .join(VERSION)
        .on(VERSION.ID.eq(RECEIPT.VERSION_ID))
        .join(PERSON)
        .on(PERSON.ID.eq(RECEIPT.PERSON_ID))
        .where(RECEIPT.SECTION_ID.eq(section))
        .and(RECEIPT.MASTER_ID.eq(master))
        .and(RECEIPT.ITEM_KEY.eq(key.value()))
        .orderBy(RECEIPT.ID.desc())
        .fetch(
            r ->
                new ReceiptLine(
                    r.value1(),
                    r.value2(),
                    Aspect.set(r.value3()),
                    r.value4(),
                    r.value5(),
                    r.value6()));
  }
}
