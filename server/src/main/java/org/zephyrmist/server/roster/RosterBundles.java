package org.zephyrmist.server.roster;

import static org.zephyrmist.server.db.Tables.ROSTER_BUNDLE;
import static org.zephyrmist.server.db.Tables.ROSTER_BUNDLE_CHUNK;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.Arrays;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Bundles between being looked at and being taken in, so that any server can do either. */
@Component
class RosterBundles {
  private static final int CHUNK = 1 << 20;
  private final DSLContext db;
  private final Clock clock;

  RosterBundles(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /**
   * @param plan what was shown of it, in short
   */
  @Transactional
  public UUID keep(Path file, String plan, SignedIn who) throws IOException {
    OffsetDateTime now = OffsetDateTime.now(clock);
    db.deleteFrom(ROSTER_BUNDLE)
        .where(ROSTER_BUNDLE.AT.lt(now.minusDays(1)).or(ROSTER_BUNDLE.PERSON_ID.eq(who.id())))
        .execute();
    UUID id = UUID.randomUUID();
    db.insertInto(ROSTER_BUNDLE).values(id, who.id(), now, plan).execute();
    byte[] chunk = new byte[CHUNK];
    try (InputStream in = Files.newInputStream(file)) {
      int n = 0;
      for (int r; (r = in.readNBytes(chunk, 0, CHUNK)) > 0; ) {
        db.insertInto(ROSTER_BUNDLE_CHUNK).values(id, n++, Arrays.copyOf(chunk, r)).execute();
      }
    }
    return id;
  }

  /** Writes a bundle of this person into a file; gives what was shown of it. */
  String fetch(UUID id, SignedIn who, Path into) throws IOException {
    String plan =
        db.select(ROSTER_BUNDLE.PLAN)
            .from(ROSTER_BUNDLE)
            .where(ROSTER_BUNDLE.ID.eq(id))
            .and(ROSTER_BUNDLE.PERSON_ID.eq(who.id()))
            .fetchOptional(ROSTER_BUNDLE.PLAN)
            .orElseThrow(() -> Refusal.notFound("roster"));
    try (OutputStream out = Files.newOutputStream(into)) {
      for (int n = 0; ; n++) {
        byte[] data =
            db.select(ROSTER_BUNDLE_CHUNK.DATA)
                .from(ROSTER_BUNDLE_CHUNK)
                .where(ROSTER_BUNDLE_CHUNK.ID.eq(id))
                .and(ROSTER_BUNDLE_CHUNK.N.eq(n))
                .fetchOne(ROSTER_BUNDLE_CHUNK.DATA);
        if (data == null) {
          return plan;
        }
        out.write(data);
      }
    }
  }

  void drop(UUID id) {
    db.deleteFrom(ROSTER_BUNDLE).where(ROSTER_BUNDLE.ID.eq(id)).execute();
  }
}
