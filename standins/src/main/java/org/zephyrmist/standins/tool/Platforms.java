package org.zephyrmist.standins.tool;

import static org.zephyrmist.standins.db.Tables.TOOL_PLATFORM;

import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.standins.db.tables.records.ToolPlatformRecord;

/** Platforms that tools were told of, each under the client that it gave the tool. */
@Component
class Platforms {
  private final DSLContext db;

  Platforms(DSLContext db) {
    this.db = db;
  }

  /**
   * A registration.
   *
   * @param keys where its public keys are
   * @param authorize where it answers logins
   * @param token where it gives tokens for scores; empty if it takes none
   */
  record Registered(
      String issuer,
      String client,
      List<String> deployments,
      String keys,
      String authorize,
      String token) {}

  void put(String host, Registered r) {
    db.deleteFrom(TOOL_PLATFORM)
        .where(TOOL_PLATFORM.HOST.eq(host))
        .and(TOOL_PLATFORM.ISSUER.eq(r.issuer()))
        .and(TOOL_PLATFORM.CLIENT.eq(r.client()))
        .execute();
    db.insertInto(TOOL_PLATFORM)
        .values(
            host,
            r.issuer(),
            r.client(),
            r.deployments().toArray(String[]::new),
            r.keys(),
            r.authorize(),
            r.token() == null ? "" : r.token())
        .execute();
  }

  Optional<ToolPlatformRecord> get(String host, String issuer, String client) {
    return db.selectFrom(TOOL_PLATFORM)
        .where(TOOL_PLATFORM.HOST.eq(host))
        .and(TOOL_PLATFORM.ISSUER.eq(issuer))
        .and(TOOL_PLATFORM.CLIENT.eq(client))
        .fetchOptional();
  }
}
