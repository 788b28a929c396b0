package org.zephyrmist.server.ledger;

import static org.zephyrmist.server.db.Tables.RECEIPT;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Base;

/** What the ledger said before. */
@Component
public class Past {
  /** A front page that it shares with another master is noted of that one too. */
  private static final String OF_ITS_MASTER =
      " and master_id = (select v.master_id from delivery d join version v on v.id = d.version_id"
          + "   where d.id = ?)";

  private final DSLContext db;

  Past(DSLContext db) {
    this.db = db;
  }

  /** An item as it had been delivered last, from which version. */
  public record Before(Base base, UUID version) {}

  /**
   * What a section held, before a delivery, of each item that the delivery noted something of; none
   * where it held nothing of it.
   */
  public Map<ItemKey, Optional<Before>> before(UUID delivery, UUID section) {
    Map<ItemKey, Optional<Before>> all = new HashMap<>();
    db.resultQuery(
            "select k.item_key as key, r.* from (select item_key, master_id, min(id) as first"
                + "   from receipt where delivery_id = ? and section_id = ?"
                + OF_ITS_MASTER
                + "   group by 1, 2) k"
                + " left join lateral (select * from receipt r where r.section_id = ?"
                + "   and r.master_id = k.master_id and r.item_key = k.item_key and r.id < k.first"
                + "   order by r.id desc limit 1) r on true",
            delivery,
            section,
            delivery,
            section)
        .forEach(r -> all.put(new ItemKey(r.get("key", String.class)), before(r)));
    return all;
  }

  private static Optional<Before> before(Record r) {
    if (r.get("id") == null || r.get(RECEIPT.HOW.getName(), RECEIPT.HOW.getConverter()).ends()) {
      return Optional.empty();
    }
    Base base =
        new Base(
            new ItemKey(r.get("item_key", String.class)),
            r.get(RECEIPT.ITEM_KIND.getName(), RECEIPT.ITEM_KIND.getConverter()),
            r.get("title", String.class),
            r.get("platform_item", String.class),
            Fingerprints.unpack(r.get("sent", byte[].class)),
            Fingerprints.unpack(r.get("shown", byte[].class)));
    return Optional.of(new Before(base, r.get("version_id", UUID.class)));
  }

  /** Whether anything is noted of a delivery in a section. */
  public static Condition noted(Field<UUID> delivery, Field<UUID> section) {
    return DSL.exists(
        DSL.selectOne()
            .from(RECEIPT)
            .where(RECEIPT.DELIVERY_ID.eq(delivery))
            .and(RECEIPT.SECTION_ID.eq(section)));
  }

  /**
   * Those of the sections that received something of the same master after a delivery.
   *
   * @param but a delivery that does not count
   */
  public Set<UUID> receivedSince(UUID delivery, Collection<UUID> sections, UUID but) {
    return new HashSet<>(
        db.resultQuery(
                "select distinct d.section_id from (select section_id, master_id, max(id) as last"
                    + "   from receipt where delivery_id = ? and section_id = any(?)"
                    + OF_ITS_MASTER
                    + "   group by 1, 2) d"
                    + " where exists (select 1 from receipt r where r.section_id = d.section_id"
                    + "   and r.master_id = d.master_id and r.id > d.last"
                    + "   and r.delivery_id not in (?, ?))",
                delivery,
                sections.toArray(UUID[]::new),
                delivery,
                delivery,
                but)
            .fetch(0, UUID.class));
  }
}
