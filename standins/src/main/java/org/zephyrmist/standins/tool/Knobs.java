package org.zephyrmist.standins.tool;

import static org.zephyrmist.standins.db.Tables.TOOL_KEY;
import static org.zephyrmist.standins.db.Tables.TOOL_KNOBS;

import java.time.Duration;
import java.util.List;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.server.ResponseStatusException;
import org.zephyrmist.standins.db.tables.records.ToolKnobsRecord;

/** What can be set at the tools, and the keys they have given out. */
@Component
class Knobs {
  private final DSLContext db;

  Knobs(DSLContext db) {
    this.db = db;
  }

  /**
   * @param minutes that it takes to make a class ready
   * @param clockOff seconds by which the tool's clock is ahead
   * @param movedTo host at which it is found now; empty if it has not moved
   * @param due by which tasks are due here (ISO 8601, with offset); empty: as their class says
   */
  record Set(boolean down, int slow, int minutes, int clockOff, String movedTo, String due) {
    static final Set NONE = new Set(false, 0, 0, 0, "", "");

    Set {
      due = due == null ? "" : due;
    }

    /** Takes its time, and is down, as it is set. */
    void trouble() {
      if (slow > 0) {
        try {
          Thread.sleep(Duration.ofSeconds(slow).toMillis());
        } catch (InterruptedException e) {
          Thread.currentThread().interrupt();
        }
      }
      if (down) {
        throw new ResponseStatusException(HttpStatus.SERVICE_UNAVAILABLE);
      }
    }
  }

  record Key(String key, String secret, String course) {}

  Set of(String host) {
    ToolKnobsRecord r = db.fetchOne(TOOL_KNOBS, TOOL_KNOBS.HOST.eq(host));
    return r == null
        ? Set.NONE
        : new Set(
            r.getDown(),
            r.getSlowSeconds(),
            r.getWaitMinutes(),
            r.getClockOffSeconds(),
            r.getMovedTo(),
            r.getDue());
  }

  void set(String host, Set s) {
    db.deleteFrom(TOOL_KNOBS).where(TOOL_KNOBS.HOST.eq(host)).execute();
    db.insertInto(TOOL_KNOBS)
        .values(host, s.down(), s.slow(), s.minutes(), s.clockOff(), s.movedTo(), s.due())
        .execute();
  }

  /** The tool behind a host, also at the host it has moved to. */
  java.util.Optional<Tool> at(String host) {
    return Tool.at(host)
        .or(
            () ->
                db.selectFrom(TOOL_KNOBS)
                    .where(TOOL_KNOBS.MOVED_TO.eq(host))
                    .fetchOptional()
                    .flatMap(r -> Tool.at(r.getHost())));
  }

  void keys(String host, List<Key> keys) {
    db.batch(
            keys.stream()
                .map(
                    k ->
                        db.insertInto(TOOL_KEY)
                            .values(host, k.key(), k.secret(), k.course())
                            .onConflict(TOOL_KEY.HOST, TOOL_KEY.KEY)
                            .doUpdate()
                            .set(TOOL_KEY.SECRET, k.secret())
                            .set(TOOL_KEY.COURSE, k.course()))
                .toList())
        .execute();
  }

  void forget(String host, String key) {
    db.deleteFrom(TOOL_KEY).where(TOOL_KEY.HOST.eq(host)).and(TOOL_KEY.KEY.eq(key)).execute();
  }
}
