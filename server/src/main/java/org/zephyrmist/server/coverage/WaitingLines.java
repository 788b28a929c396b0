package org.zephyrmist.server.coverage;

import static org.jooq.impl.DSL.inline;
import static org.jooq.impl.DSL.selectOne;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.util.HashMap;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.delivery.LineState;

/** Where deliveries wait for a person. */
@Component
class WaitingLines {
  private final DSLContext db;

  WaitingLines(DSLContext db) {
    this.db = db;
  }

  /**
   * Sections where the last confirmed delivery of a master waits for a person; what came later
   * counts.
   *
   * @param place of each section that is looked at, from 0
   * @return whether each waits, by master
   */
  Map<UUID, boolean[]> of(UUID term, Map<UUID, Integer> place) {
    var laterLine = DELIVERY_LINE.as("later_line");
    var later = DELIVERY.as("later");
    var laterVersion = VERSION.as("later_version");
    Map<UUID, boolean[]> waiting = new HashMap<>();
    db.select(VERSION.MASTER_ID, DELIVERY_LINE.SECTION_ID)
        .from(DELIVERY_LINE)
        .join(DELIVERY)
        .on(DELIVERY.ID.eq(DELIVERY_LINE.DELIVERY_ID))
        .join(VERSION)
        .on(VERSION.ID.eq(DELIVERY.VERSION_ID))
        .join(SECTION)
        .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
        .where(DELIVERY_LINE.STATE.eq(inline(LineState.NEEDS_PERSON, DELIVERY_LINE.STATE)))
        .and(SECTION.TERM_ID.eq(term))
        .and(DELIVERY.CONFIRMED_AT.isNotNull())
        .andNotExists(
            selectOne()
                .from(laterLine)
                .join(later)
                .on(later.ID.eq(laterLine.DELIVERY_ID))
                .join(laterVersion)
                .on(laterVersion.ID.eq(later.VERSION_ID))
                .where(laterLine.SECTION_ID.eq(DELIVERY_LINE.SECTION_ID))
                .and(laterVersion.MASTER_ID.eq(VERSION.MASTER_ID))
                .and(later.CONFIRMED_AT.gt(DELIVERY.CONFIRMED_AT)))
        .forEach(
            r -> {
              Integer s = place.get(r.value2());
              if (s != null) {
                waiting.computeIfAbsent(r.value1(), m -> new boolean[place.size()])[s] = true;
              }
            });
    return waiting;
  }
}
