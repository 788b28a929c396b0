package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.VERSION_LINK;

import java.util.TreeMap;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.tool.RelinkRule.Link;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Links that versions hold. */
@Component
class KnownLinks {
  private static final TypeReference<TreeMap<String, String>> PARAMETERS = new TypeReference<>() {};
  private final DSLContext db;
  private final JsonMapper json;

  KnownLinks(DSLContext db, JsonMapper json) {
    this.db = db;
    this.json = json;
  }

  /** Any that leads to a host; with no link to it, the host's own page. */
  Link any(String host) {
    return db.selectFrom(VERSION_LINK)
        .where(VERSION_LINK.HOST.eq(host))
        .orderBy(VERSION_LINK.TOOL.desc(), VERSION_LINK.VERSION_ID, VERSION_LINK.ITEM_KEY)
        .limit(1)
        .fetchOptional(
            l -> new Link(l.getAddress(), json.readValue(l.getParameters().data(), PARAMETERS)))
        .orElseGet(() -> new Link("https://" + host + "/", new TreeMap<>()));
  }
}
