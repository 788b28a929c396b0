package org.zephyrmist.server.ledger;

import static org.zephyrmist.server.db.Tables.HOLDING;
import static org.zephyrmist.server.db.Tables.RECEIPT;

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
   * @param platformItems by section, what the platform calls it
   */
  public record Held(UUID version, String item, Map<UUID, String> platformItems) {}

  public List<Held> of(UUID[] sections, Collection<String> items) {
    Map<Held, Map<UUID, String>> all = new HashMap<>();
    db.select(RECEIPT.VERSION_ID, HOLDING.ITEM_KEY, HOLDING.SECTION_ID, HOLDING.PLATFORM_ITEM)
        .from(HOLDING)
        .join(RECEIPT)
        .on(RECEIPT.ID.eq(HOLDING.RECEIPT_ID))
        .where(HOLDING.ITEM_KEY.eq(DSL.any(items.toArray(String[]::new))))
        .and(HOLDING.SECTION_ID.eq(DSL.any(sections)))
        .forEach(
            r ->
                all.computeIfAbsent(
                        new Held(r.value1(), r.value2(), Map.of()), h -> new HashMap<>())
                    .put(r.value3(), r.value4()));
    return all.entrySet().stream()
        .map(e -> new Held(e.getKey().version(), e.getKey().item(), e.getValue()))
        .toList();
  }
}
