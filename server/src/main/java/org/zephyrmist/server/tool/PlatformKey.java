package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.SIGNING_KEY;

import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.lti.SigningKey;
import org.zephyrmist.server.secret.Secrets;

/** The key that messages to tools are signed with; made once, the same for all servers. */
@Component
public class PlatformKey {
  private final DSLContext db;
  private final Secrets secrets;
  private volatile SigningKey key;

  PlatformKey(DSLContext db, Secrets secrets) {
    this.db = db;
    this.secrets = secrets;
  }

  public SigningKey get() {
    SigningKey known = key;
    if (known == null) {
      known = SigningKey.of(secrets.open(kept()));
      key = known;
    }
    return known;
  }

  private byte[] kept() {
    return db.select(SIGNING_KEY.SECRET)
        .from(SIGNING_KEY)
        .fetchOptional(SIGNING_KEY.SECRET)
        .orElseGet(this::made);
  }

  /** Of two servers that make one at once, the first one's counts. */
  private byte[] made() {
    SigningKey fresh = SigningKey.generated(UUID.randomUUID().toString());
    db.insertInto(SIGNING_KEY, SIGNING_KEY.SECRET)
        .values(secrets.close(fresh.secret()))
        .onConflictDoNothing()
        .execute();
    return db.select(SIGNING_KEY.SECRET).from(SIGNING_KEY).fetchSingle().value1();
  }
}
