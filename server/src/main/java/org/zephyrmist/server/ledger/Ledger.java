package org.zephyrmist.server.ledger;

import static org.zephyrmist.server.db.Tables.HOLDING;
import static org.zephyrmist.server.db.Tables.RECEIPT;
import static org.zephyrmist.server.db.Tables.STANDING;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.Receipt;

/** All receipts, and what follows from them: holdings and standings. */
@Component
public class Ledger {
  private final DSLContext db;
  private final Clock clock;

  Ledger(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /** Every holding of a section, of whatever master. */
  public List<Holding> holdings(UUID section) {
    return db.selectFrom(HOLDING).where(HOLDING.SECTION_ID.eq(section)).fetch(Holdings::holding);
  }

  /** What was last delivered of a master, by item key. */
  public static Map<ItemKey, Base> bases(List<Holding> holdings, UUID master) {
    Map<ItemKey, Base> bases = new HashMap<>();
    for (Holding h : holdings) {
      if (h.master().equals(master)) {
        bases.put(h.base().key(), h.base());
      }
    }
    return bases;
  }

  /** Adds receipts and brings the holdings up to them; within the caller's transaction. */
  public void record(Origin o, List<Receipt> receipts) {
    if (receipts.isEmpty()) {
      return;
    }
    enter(o, receipts);
    List<Receipt> setups =
        receipts.stream()
            .filter(r -> r.base().kind() == Kind.SETUP)
            .filter(r -> r.how() != Receipt.How.RETIRED && r.how() != Receipt.How.ADOPTED)
            .toList();
    if (!setups.isEmpty()) {
      shared(o, setups);
    }
  }

  /**
   * What is one item in the shell for several masters, as front pages that meet are, was written
   * for all of them.
   */
  private void shared(Origin o, List<Receipt> setups) {
    Map<String, Receipt> byId = new HashMap<>();
    setups.forEach(r -> byId.put(r.base().id(), r));
    List<Holding> others =
        db.selectFrom(HOLDING)
            .where(HOLDING.SECTION_ID.eq(o.section()))
            .and(HOLDING.MASTER_ID.ne(o.master()))
            .and(HOLDING.PLATFORM_ITEM.in(byId.keySet()))
            .fetch(Holdings::holding);
    for (Holding h : others) {
      Receipt r = byId.get(h.platformItem());
      Base now = h.base().as(r.base());
      UUID version = from(o.section(), h.master(), h.base().key());
      if (!now.equals(h.base())) {
        Receipt.How how = r.writes().isEmpty() ? Receipt.How.KEPT : Receipt.How.UPDATED;
        enter(
            new Origin(o.section(), h.master(), version, o.delivery(), o.person()),
            List.of(new Receipt(now, how, r.writes())));
      }
    }
  }

  private void enter(Origin o, List<Receipt> receipts) {
    db.query(
            "with r as (insert into receipt (section_id, master_id, version_id, delivery_id,"
                + "   person_id, at, item_key, item_kind, title, how, writes, platform_item, sent,"
                + "   shown) select ?, ?, ?, ?, ?, ?::timestamptz, x.* from unnest(?::text[],"
                + "   ?::text[], ?::text[], ?::text[], ?::int[], ?::text[], ?::bytea[],"
                + "   ?::bytea[]) x returning *),"
                + " gone as (delete from holding h using r where r.how in ('RETIRED', 'GIVEN_BACK')"
                + "   and h.section_id = r.section_id and h.master_id = r.master_id"
                + "   and h.item_key = r.item_key)"
                + " insert into holding (section_id, master_id, item_key, item_kind, title,"
                + "   platform_item, receipt_id, sent, shown, here)"
                + " select section_id, master_id, item_key, item_kind, title, platform_item, id,"
                + "   sent, shown, shown from r where how not in ('RETIRED', 'GIVEN_BACK')"
                + " on conflict (section_id, master_id, item_key) do update set"
                + "   item_kind = excluded.item_kind, title = excluded.title,"
                + "   platform_item = excluded.platform_item,"
                + "   receipt_id = excluded.receipt_id, sent = excluded.sent,"
                + "   shown = excluded.shown, here = excluded.here",
            o.section(),
            o.master(),
            o.version(),
            o.delivery(),
            o.person(),
            OffsetDateTime.now(clock),
            column(receipts, e -> e.base().key().value()),
            column(receipts, e -> e.base().kind().name()),
            column(receipts, e -> e.base().title()),
            column(receipts, e -> e.how().name()),
            receipts.stream().map(e -> Aspect.bits(e.writes())).toArray(Integer[]::new),
            column(receipts, e -> e.base().id()),
            receipts.stream().map(e -> e.base().sent().pack()).toArray(byte[][]::new),
            receipts.stream().map(e -> e.base().shown().pack()).toArray(byte[][]::new))
        .execute();
  }

  private static String[] column(List<Receipt> receipts, Function<Receipt, String> get) {
    return receipts.stream().map(get).toArray(String[]::new);
  }

  /** What the shell holds now of everything delivered to it; standings follow. */
  public void seen(UUID section, List<Holding> holdings, Map<String, Held> shell) {
    List<Holding> moved = new ArrayList<>();
    List<byte[]> now = new ArrayList<>();
    for (Holding h : holdings) {
      Optional<Fingerprints> here =
          Optional.ofNullable(shell.get(h.platformItem())).map(Held::aspects);
      if (!here.equals(h.here())) {
        moved.add(h);
        now.add(here.map(Fingerprints::pack).orElse(null));
      }
    }
    if (!moved.isEmpty()) {
      here(section, moved, now);
    }
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

  /** Who changed an item in a section, and when, in the platform's words. */
  public record Author(String by, String at) {}

  /** Notes who changed items, by the platform's ids of them. */
  public void changedBy(UUID section, Map<String, Author> authors) {
    if (authors.isEmpty()) {
      return;
    }
    String[] ids = authors.keySet().toArray(String[]::new);
    db.query(
            "update holding h set changed_by = nullif(x.who, ''), changed_at = nullif(x.moment, '')"
                + " from unnest(?::text[], ?::text[], ?::text[]) x (id, who, moment)"
                + " where h.section_id = ? and h.platform_item = x.id"
                + " and (h.changed_by is distinct from nullif(x.who, '')"
                + "   or h.changed_at is distinct from nullif(x.moment, ''))",
            ids,
            Stream.of(ids).map(i -> authors.get(i).by()).toArray(String[]::new),
            Stream.of(ids).map(i -> authors.get(i).at()).toArray(String[]::new),
            section)
        .execute();
  }

  private void here(UUID section, List<Holding> moved, List<byte[]> now) {
    db.query(
            "update holding h set here = x.here"
                + " from unnest(?::uuid[], ?::text[], ?::bytea[]) x (master_id, item_key, here)"
                + " where h.section_id = ? and h.master_id = x.master_id"
                + " and h.item_key = x.item_key",
            moved.stream().map(Holding::master).toArray(UUID[]::new),
            moved.stream().map(h -> h.base().key().value()).toArray(String[]::new),
            now.toArray(byte[][]::new),
            section)
        .execute();
  }

  /** From which version the section got an item last. */
  public UUID from(UUID section, UUID master, ItemKey item) {
    return db.select(RECEIPT.VERSION_ID)
        .from(HOLDING)
        .join(RECEIPT)
        .on(RECEIPT.ID.eq(HOLDING.RECEIPT_ID))
        .where(HOLDING.SECTION_ID.eq(section))
        .and(HOLDING.MASTER_ID.eq(master))
        .and(HOLDING.ITEM_KEY.eq(item.value()))
        .fetchSingle(RECEIPT.VERSION_ID);
  }

  /** Whether the section counts as holding another version of the master. */
  public boolean standsElsewhere(Origin o) {
    return db.fetchExists(
        STANDING,
        STANDING
            .SECTION_ID
            .eq(o.section())
            .and(STANDING.MASTER_ID.eq(o.master()))
            .and(STANDING.VERSION_ID.ne(o.version())));
  }

  /** Where a section stands towards a master. */
  public record Stand(UUID version, int expected, int withheld) {}

  public Optional<Stand> stand(UUID section, UUID master) {
    return db.selectFrom(STANDING)
        .where(STANDING.SECTION_ID.eq(section))
        .and(STANDING.MASTER_ID.eq(master))
        .fetchOptional(r -> new Stand(r.getVersionId(), r.getExpected(), r.getWithheld()));
  }

  /**
   * The section stands where it stood before a delivery that was taken back; where it had received
   * nothing and something had to be left, it stands as it did with that delivery.
   */
  public void standsAgain(Origin o, Optional<Stand> before) {
    if (before.isPresent()) {
      Stand s = before.get();
      standing(
          new Origin(o.section(), o.master(), s.version(), o.delivery(), o.person()),
          s.expected(),
          s.withheld());
      return;
    }
    boolean left =
        db.fetchExists(
            HOLDING, HOLDING.SECTION_ID.eq(o.section()).and(HOLDING.MASTER_ID.eq(o.master())));
    if (!left) {
      db.deleteFrom(STANDING)
          .where(STANDING.SECTION_ID.eq(o.section()))
          .and(STANDING.MASTER_ID.eq(o.master()))
          .execute();
    }
  }

  /** Notes another delivery of what the section holds; false if it never received the master. */
  public boolean stillStands(Origin o, int expected) {
    return db.update(STANDING)
            .set(STANDING.VERSION_ID, o.version())
            .set(STANDING.DELIVERY_ID, o.delivery())
            .set(STANDING.EXPECTED, expected)
            .set(STANDING.WITHHELD, 0)
            .where(STANDING.SECTION_ID.eq(o.section()))
            .and(STANDING.MASTER_ID.eq(o.master()))
            .execute()
        > 0;
  }

  /**
   * Where the section now stands towards the master.
   *
   * @param expected items of the version that are meant for it
   * @param withheld items held back: blocked, so not as the version says
   */
  public void standing(Origin o, int expected, int withheld) {
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
