package org.zephyrmist.server.ledger;

import static org.zephyrmist.server.db.Tables.HOLDING;
import static org.zephyrmist.server.db.Tables.RECEIPT;

import java.time.OffsetDateTime;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;

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

  public List<Held> of(UUID[] sections, Collection<String> items) {
    Map<Held, Map<UUID, In>> all = new HashMap<>();
    db.select(
            RECEIPT.VERSION_ID,
            HOLDING.ITEM_KEY,
            HOLDING.SECTION_ID,
            HOLDING.PLATFORM_ITEM,
            RECEIPT.AT)
        .from(HOLDING)
        .join(RECEIPT)
        .on(RECEIPT.ID.eq(HOLDING.RECEIPT_ID))
        .where(HOLDING.ITEM_KEY.eq(DSL.any(items.toArray(String[]::new))))
        .and(HOLDING.SECTION_ID.eq(DSL.any(sections)))
        .forEach(
            r ->
                all.computeIfAbsent(
                        new Held(r.value1(), r.value2(), Map.of()), h -> new HashMap<>())
                    .put(r.value3(), new In(r.value4(), r.value5())));
    return all.entrySet().stream()
        .map(e -> new Held(e.getKey().version(), e.getKey().item(), e.getValue()))
        .toList();
  }
}
