package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.HOLDING;
import static org.zephyrmist.server.db.Tables.RECEIPT;
import static org.zephyrmist.server.db.Tables.STANDING;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.Query;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.server.db.tables.records.HoldingRecord;

/** All receipts, and what follows from them: holdings and standings. */
@Component
class Ledger {
  private final DSLContext db;
  private final Clock clock;

  Ledger(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /** How an item came to be as it is. */
  enum How {
    ADDED,
    UPDATED,
    ADOPTED,
    KEPT,
    RETIRED
  }

  record Entry(Base base, How how, Set<Aspect> writes) {}

  /** From where receipts come. */
  record Origin(UUID section, UUID master, UUID version, UUID delivery, UUID person) {}

  /** Every holding of a section, of whatever master. */
  List<HoldingRecord> holdings(UUID section) {
    return db.selectFrom(HOLDING).where(HOLDING.SECTION_ID.eq(section)).fetch();
  }

  static Map<ItemKey, Base> bases(List<HoldingRecord> holdings, UUID master) {
    Map<ItemKey, Base> bases = new HashMap<>();
    for (HoldingRecord h : holdings) {
      if (h.getMasterId().equals(master)) {
        ItemKey key = new ItemKey(h.getItemKey());
        bases.put(
            key,
            new Base(
                key,
                Kind.valueOf(h.getItemKind()),
                h.getTitle(),
                h.getPlatformItem(),
                org.zephyrmist.core.content.Fingerprints.unpack(h.getSent()),
                org.zephyrmist.core.content.Fingerprints.unpack(h.getShown())));
      }
    }
    return bases;
  }

  /** Adds receipts and brings the holdings up to them; within the caller's transaction. */
  void record(Origin o, List<Entry> entries) {
    if (entries.isEmpty()) {
      return;
    }
    OffsetDateTime now = OffsetDateTime.now(clock);
    var insert =
        db.insertInto(
            RECEIPT,
            RECEIPT.SECTION_ID,
            RECEIPT.MASTER_ID,
            RECEIPT.VERSION_ID,
            RECEIPT.DELIVERY_ID,
            RECEIPT.ITEM_KEY,
            RECEIPT.ITEM_KIND,
            RECEIPT.TITLE,
            RECEIPT.HOW,
            RECEIPT.WRITES,
            RECEIPT.PLATFORM_ITEM,
            RECEIPT.SENT,
            RECEIPT.SHOWN,
            RECEIPT.PERSON_ID,
            RECEIPT.AT);
    for (Entry e : entries) {
      Base b = e.base();
      insert =
          insert.values(
              o.section(),
              o.master(),
              o.version(),
              o.delivery(),
              b.key().value(),
              b.kind().name(),
              b.title(),
              e.how().name(),
              mask(e.writes()),
              b.id(),
              b.sent().pack(),
              b.shown().pack(),
              o.person(),
              now);
    }
    Map<String, Long> ids = new HashMap<>();
    insert
        .returning(RECEIPT.ID, RECEIPT.ITEM_KEY)
        .fetch()
        .forEach(r -> ids.put(r.getItemKey(), r.getId()));
    List<Query> q = new ArrayList<>();
    for (Entry e : entries) {
      q.add(holding(o, e, ids.get(e.base().key().value())));
    }
    db.batch(q).execute();
  }

  private Query holding(Origin o, Entry e, long receipt) {
    Base b = e.base();
    if (e.how() == How.RETIRED) {
      return db.deleteFrom(HOLDING)
          .where(HOLDING.SECTION_ID.eq(o.section()))
          .and(HOLDING.ITEM_KEY.eq(b.key().value()));
    }
    HoldingRecord h = new HoldingRecord();
    h.setSectionId(o.section());
    h.setMasterId(o.master());
    h.setItemKey(b.key().value());
    h.setItemKind(b.kind().name());
    h.setTitle(b.title());
    h.setPlatformItem(b.id());
    h.setReceiptId(receipt);
    h.setSent(b.sent().pack());
    h.setShown(b.shown().pack());
    h.setHere(b.shown().pack());
    return db.insertInto(HOLDING)
        .set(h)
        .onConflict(HOLDING.SECTION_ID, HOLDING.ITEM_KEY)
        .doUpdate()
        .set(h);
  }

  static int mask(Set<Aspect> aspects) {
    return aspects.stream().mapToInt(a -> 1 << a.ordinal()).sum();
  }

  /** What the shell holds now of everything delivered to it; standings follow. */
  void seen(UUID section, Map<String, Held> shell) {
    List<HoldingRecord> moved = new ArrayList<>();
    for (HoldingRecord h : holdings(section)) {
      Held s = shell.get(h.getPlatformItem());
      byte[] here = s == null ? null : s.aspects().pack();
      if (!java.util.Arrays.equals(here, h.getHere())) {
        h.setHere(here);
        moved.add(h);
      }
    }
    db.batchUpdate(moved).execute();
    db.query(
            "update standing st set read_at = ?::timestamptz,"
                + " changed = x.changed, held = greatest(0, x.present - st.withheld)"
                + " from (select s.master_id,"
                + "   count(*) filter (where h.here <> h.shown) as changed,"
                + "   count(*) filter (where h.here is not null and exists (select 1 from tree_item t"
                + "     where t.tree_id = v.tree_id and t.item_key = h.item_key)) as present"
                + "   from standing s join version v on v.id = s.version_id"
                + "   left join holding h on h.section_id = s.section_id"
                + "     and h.master_id = s.master_id"
                + "   where s.section_id = ? group by s.master_id) x"
                + " where st.section_id = ? and st.master_id = x.master_id",
            OffsetDateTime.now(clock),
            section,
            section)
        .execute();
  }

  /**
   * Where the section now stands towards the master.
   *
   * @param expected items of the version that are meant for it
   * @param withheld items held back: blocked, so not as the version says
   */
  void standing(Origin o, int expected, int withheld) {
    db.insertInto(STANDING)
        .set(STANDING.SECTION_ID, o.section())
        .set(STANDING.MASTER_ID, o.master())
        .set(STANDING.VERSION_ID, o.version())
        .set(STANDING.DELIVERY_ID, o.delivery())
        .set(STANDING.EXPECTED, expected)
        .set(STANDING.HELD, 0)
        .set(STANDING.CHANGED, 0)
        .set(STANDING.WITHHELD, withheld)
        .set(STANDING.READ_AT, OffsetDateTime.now(clock))
        .onConflict(STANDING.SECTION_ID, STANDING.MASTER_ID)
        .doUpdate()
        .set(STANDING.VERSION_ID, o.version())
        .set(STANDING.DELIVERY_ID, o.delivery())
        .set(STANDING.EXPECTED, expected)
        .set(STANDING.WITHHELD, withheld)
        .execute();
  }
}
