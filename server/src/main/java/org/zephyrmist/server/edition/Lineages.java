package org.zephyrmist.server.edition;

import static org.zephyrmist.server.db.Tables.MASTER_EDITION_KEY;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.edition.Lineage;
import org.zephyrmist.server.db.tables.records.MasterEditionKeyRecord;

/** What items of the edition that a master is built on are called in the master, as it is kept. */
@Component
class Lineages {
  private final DSLContext db;

  Lineages(DSLContext db) {
    this.db = db;
  }

  Lineage of(UUID master) {
    Map<ItemKey, ItemKey> keys = new HashMap<>();
    db.selectFrom(MASTER_EDITION_KEY)
        .where(MASTER_EDITION_KEY.MASTER_ID.eq(master))
        .forEach(r -> keys.put(new ItemKey(r.getEditionKey()), new ItemKey(r.getItemKey())));
    return new Lineage(keys);
  }

  void put(UUID master, Lineage lineage) {
    db.deleteFrom(MASTER_EDITION_KEY).where(MASTER_EDITION_KEY.MASTER_ID.eq(master)).execute();
    List<MasterEditionKeyRecord> rows =
        lineage.keys().entrySet().stream()
            .map(e -> new MasterEditionKeyRecord(master, e.getKey().value(), e.getValue().value()))
            .toList();
    db.batchInsert(rows).execute();
  }
}
