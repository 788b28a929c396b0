package org.zephyrmist.server.ledger;

import static org.zephyrmist.server.db.Tables.HOLDING;
import static org.zephyrmist.server.db.Tables.RECEIPT;

import java.time.OffsetDateTime;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.ItemKey;

/** From which version sections have certain items. */
@Component
public class HeldVersions {
  private final DSLContext db;

  HeldVersions(DSLContext db) {
    this.db = db;
  }

  /**
   * Sections that have an item from a version.
   *
   * @param in by section
   */
  public record Held(UUID version, String item, Map<UUID, In> in) {}

  /**
   * An item in a section.
   *
   * @param platformItem what the platform calls it
   * @param at when it was last delivered
   */
  public record In(String platformItem, OffsetDateTime at) {}

  /** One row for each version and item, with what differs by section as arrays. */
  public List<Held> of(UUID[] sections, Collection<String> items) {
    if (items.isEmpty()) {
      return List.of();
    }
    Field<UUID[]> in = DSL.arrayAgg(HOLDING.SECTION_ID);
    Field<String[]> called = DSL.arrayAgg(HOLDING.PLATFORM_ITEM);
    Field<OffsetDateTime[]> at = DSL.arrayAgg(RECEIPT.AT);
    return db.select(RECEIPT.VERSION_ID, HOLDING.ITEM_KEY, in, called, at)
        .from(HOLDING)
        .join(RECEIPT)
        .on(RECEIPT.ID.eq(HOLDING.RECEIPT_ID))
        .where(HOLDING.ITEM_KEY.eq(DSL.any(items.toArray(String[]::new))))
        .and(HOLDING.SECTION_ID.eq(DSL.any(sections)))
        .groupBy(RECEIPT.VERSION_ID, HOLDING.ITEM_KEY)
        .fetch(r -> new Held(r.value1(), r.value2(), in(r.value3(), r.value4(), r.value5())));
  }

  /**
   * Sections that have an item from a version, and no more of it.
   *
   * @param in the sections
   */
  public record HeldIn(UUID version, String item, UUID[] in) {}

  /** The same as {@link #of}, where it is no matter what the platform calls it, and since when. */
  public List<HeldIn> sections(UUID[] sections, Collection<String> items) {
    if (items.isEmpty()) {
      return List.of();
    }
    Field<UUID[]> in = DSL.arrayAgg(HOLDING.SECTION_ID);
    return db.select(RECEIPT.VERSION_ID, HOLDING.ITEM_KEY, in)
        .from(HOLDING)
        .join(RECEIPT)
        .on(RECEIPT.ID.eq(HOLDING.RECEIPT_ID))
        .where(HOLDING.ITEM_KEY.eq(DSL.any(items.toArray(String[]::new))))
        .and(HOLDING.SECTION_ID.eq(DSL.any(sections)))
        .groupBy(RECEIPT.VERSION_ID, HOLDING.ITEM_KEY)
        .fetch(r -> new HeldIn(r.value1(), r.value2(), r.value3()));
  }

  /** Versions from which a section has anything. */
  public Set<UUID> in(UUID section) {
    return db.selectDistinct(RECEIPT.VERSION_ID)
        .from(HOLDING)
        .join(RECEIPT)
        .on(RECEIPT.ID.eq(HOLDING.RECEIPT_ID))
        .where(HOLDING.SECTION_ID.eq(section))
        .fetchSet(RECEIPT.VERSION_ID);
  }

  /** An item of a master. */
  public record Known(UUID master, ItemKey key) {}

  /** Which items these are in their sections, by section and what the platform calls it. */
  public Map<String, Known> known(UUID[] sections, Collection<String> platformItems) {
    Map<String, Known> all = new HashMap<>();
    db.select(HOLDING.SECTION_ID, HOLDING.PLATFORM_ITEM, HOLDING.MASTER_ID, HOLDING.ITEM_KEY)
        .from(HOLDING)
        .where(HOLDING.SECTION_ID.eq(DSL.any(sections)))
        .and(HOLDING.PLATFORM_ITEM.eq(DSL.any(platformItems.toArray(String[]::new))))
        .forEach(
            r -> all.put(r.value1() + r.value2(), new Known(r.value3(), new ItemKey(r.value4()))));
    return all;
  }

  private static Map<UUID, In> in(UUID[] sections, String[] called, OffsetDateTime[] at) {
    Map<UUID, In> all = new HashMap<>();
    for (int i = 0; i < sections.length; i++) {
      all.put(sections[i], new In(called[i], at[i]));
    }
    return all;
  }
}
