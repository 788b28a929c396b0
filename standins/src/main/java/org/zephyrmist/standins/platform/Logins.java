package org.zephyrmist.standins.platform;

import static org.zephyrmist.standins.db.Tables.SCORE_TOKEN;
import static org.zephyrmist.standins.db.Tables.TOOL_LAUNCH;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.standins.db.tables.records.ToolLaunchRecord;

/** Launches by registration that people have begun, and tokens for their scores. */
@Component
class Logins {
  private static final int MINUTES = 60;
  private final DSLContext db;
  private final Clock clock;

  Logins(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  String begun(String shell, String item, String person, boolean instructor) {
    String id = UUID.randomUUID().toString();
    db.insertInto(TOOL_LAUNCH)
        .values(id, shell, item, person, instructor, OffsetDateTime.now(clock))
        .execute();
    return id;
  }

  Optional<ToolLaunchRecord> get(String id) {
    return db.selectFrom(TOOL_LAUNCH).where(TOOL_LAUNCH.ID.eq(id)).fetchOptional();
  }

  /** Once. */
  void ended(String id) {
    db.deleteFrom(TOOL_LAUNCH).where(TOOL_LAUNCH.ID.eq(id)).execute();
  }

  /**
   * A token for a client; none if its assertion was used before.
   *
   * @param assertion its id
   */
  Optional<String> token(String assertion, String client) {
    String token = UUID.randomUUID().toString();
    int made =
        db.insertInto(SCORE_TOKEN)
            .values(
                token,
                client + ' ' + assertion,
                client,
                OffsetDateTime.now(clock).plusMinutes(MINUTES))
            .onConflictDoNothing()
            .execute();
    return made == 1 ? Optional.of(token) : Optional.empty();
  }

  /** The client that a token was given to. */
  Optional<String> client(String token) {
    return db.select(SCORE_TOKEN.CLIENT)
        .from(SCORE_TOKEN)
        .where(SCORE_TOKEN.TOKEN.eq(token))
        .and(SCORE_TOKEN.ENDS_AT.gt(OffsetDateTime.now(clock)))
        .fetchOptional(SCORE_TOKEN.CLIENT);
  }
}
