package org.zephyrmist.server.ledger;

import static org.zephyrmist.server.db.Tables.HOLDING;
import static org.zephyrmist.server.db.Tables.RECEIPT;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import java.util.stream.Collectors;
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

  /** Sections that have an item from a version. */
  public record Held(UUID version, String item, List<UUID> sections) {}

  public List<Held> of(UUID[] sections, Collection<String> items) {
    return db
        .select(RECEIPT.VERSION_ID, HOLDING.ITEM_KEY, HOLDING.SECTION_ID)
        .from(HOLDING)
        .join(RECEIPT)
        .on(RECEIPT.ID.eq(HOLDING.RECEIPT_ID))
        .where(HOLDING.ITEM_KEY.eq(DSL.any(items.toArray(String[]::new))))
        .and(HOLDING.SECTION_ID.eq(DSL.any(sections)))
        .stream()
        .collect(
            Collectors.groupingBy(
                r -> new Held(r.value1(), r.value2(), List.of()),
                Collectors.mapping(r -> r.value3(), Collectors.toList())))
        .entrySet()
        .stream()
        .map(e -> new Held(e.getKey().version(), e.getKey().item(), e.getValue()))
        .toList();
  }
}
