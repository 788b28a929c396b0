package org.zephyrmist.server.ledger;

import static org.zephyrmist.server.db.Tables.RESTORE_POINT;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.server.Settings;

/** What shells held before lines changed or removed anything there. */
@Component
public class RestorePoints {
  private static final int MOST = 200;
  private final DSLContext db;
  private final PackedShell packed;
  private final Clock clock;
  private final Settings settings;

  RestorePoints(DSLContext db, PackedShell packed, Clock clock, Settings settings) {
    this.db = db;
    this.packed = packed;
    this.clock = clock;
    this.settings = settings;
  }

  /** Keeps what a shell holds before a line is carried out, once for a line. */
  public void keep(UUID line, UUID section, List<Held> shell) {
    OffsetDateTime now = OffsetDateTime.now(clock);
    db.insertInto(RESTORE_POINT)
        .set(RESTORE_POINT.LINE_ID, line)
        .set(RESTORE_POINT.SECTION_ID, section)
        .set(RESTORE_POINT.TAKEN_AT, now)
        .set(RESTORE_POINT.KEEP_UNTIL, now.plus(settings.keepsRestorePoints()))
        .set(RESTORE_POINT.ITEMS, shell.size())
        .set(RESTORE_POINT.READING, packed.pack(shell))
        .onConflictDoNothing()
        .execute();
  }

  /** One that is kept, but for what the shell held. */
  public record Kept(UUID line, OffsetDateTime takenAt, OffsetDateTime keepUntil, int items) {}

  /** Those of a section, the newest first. */
  public List<Kept> of(UUID section) {
    return db.select(
            RESTORE_POINT.LINE_ID,
            RESTORE_POINT.TAKEN_AT,
            RESTORE_POINT.KEEP_UNTIL,
            RESTORE_POINT.ITEMS)
        .from(RESTORE_POINT)
        .where(RESTORE_POINT.SECTION_ID.eq(section))
        .orderBy(RESTORE_POINT.TAKEN_AT.desc())
        .limit(MOST)
        .fetch(r -> new Kept(r.value1(), r.value2(), r.value3(), r.value4()));
  }

  /** What a shell held then; none if nothing is kept of it any more. */
  public Optional<List<Held>> shell(UUID line) {
    return db.select(RESTORE_POINT.READING)
        .from(RESTORE_POINT)
        .where(RESTORE_POINT.LINE_ID.eq(line))
        .fetchOptional(r -> packed.unpack(r.value1()));
  }

  /** Those that were kept long enough go. */
  public void sweep() {
    db.deleteFrom(RESTORE_POINT)
        .where(RESTORE_POINT.KEEP_UNTIL.lt(OffsetDateTime.now(clock)))
        .execute();
  }
}
