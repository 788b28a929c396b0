package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.SECTION_TOOL;

import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.tool.Seen;

/** Hosts whose credentials stand in a shell. */
@Component
public class ConnectedHosts {
  private final DSLContext db;

  ConnectedHosts(DSLContext db) {
    this.db = db;
  }

  /** As they were last seen, or written. */
  public Set<String> in(UUID section) {
    return db.select(SECTION_TOOL.HOST)
        .from(SECTION_TOOL)
        .where(SECTION_TOOL.SECTION_ID.eq(section))
        .and(SECTION_TOOL.DATA.eq(Seen.Data.THERE))
        .fetchSet(SECTION_TOOL.HOST);
  }
}
