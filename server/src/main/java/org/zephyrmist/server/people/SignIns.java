package org.zephyrmist.server.people;

import static org.zephyrmist.server.db.Tables.SIGN_IN_FAILURE;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Locale;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Fingerprint;

/**
 * Slows guessing down: after five failures for one address from one place, after thirty from one
 * place, and after fifty for one address from anywhere, each further try has to wait, longer each
 * time. Known and unknown addresses are treated alike. Failures are forgotten after an hour.
 */
@Component
class SignIns {
  private static final Duration FORGOTTEN = Duration.ofHours(1);
  private static final Duration LONGEST = Duration.ofMinutes(15);
  private final DSLContext db;
  private final Clock clock;

  SignIns(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  private record Key(byte[] hash, int free) {}

  private static List<Key> keys(String email, String from) {
    String address = email.strip().toLowerCase(Locale.ROOT);
    return List.of(
        new Key(hash("both " + from + " " + address), 5),
        new Key(hash("from " + from), 30),
        new Key(hash("address " + address), 50));
  }

  private static byte[] hash(String text) {
    return Fingerprint.sha256().digest(text.getBytes(StandardCharsets.UTF_8));
  }

  /** How long this try has to wait; zero if it may go on. */
  Duration wait(String email, String from) {
    OffsetDateTime now = OffsetDateTime.now(clock);
    Duration longest = Duration.ZERO;
    for (Key k : keys(email, from)) {
      Duration left =
          db.selectFrom(SIGN_IN_FAILURE)
              .where(SIGN_IN_FAILURE.KEY.eq(k.hash()))
              .and(SIGN_IN_FAILURE.LAST.gt(now.minus(FORGOTTEN)))
              .fetchOptional()
              .map(r -> Duration.between(now, r.getLast().plus(pause(r.getFailures() - k.free()))))
              .orElse(Duration.ZERO);
      longest = left.compareTo(longest) > 0 ? left : longest;
    }
    return longest;
  }

  private static Duration pause(int beyond) {
    if (beyond < 0) {
      return Duration.ZERO;
    }
    Duration d = Duration.ofSeconds(2L << Math.min(beyond, 9));
    return d.compareTo(LONGEST) > 0 ? LONGEST : d;
  }

  void failed(String email, String from) {
    OffsetDateTime now = OffsetDateTime.now(clock);
    for (Key k : keys(email, from)) {
      db.query(
              "insert into sign_in_failure as f (key, failures, last) values (?, 1, ?::timestamptz)"
                  + " on conflict (key) do update set last = excluded.last, failures = case when"
                  + " f.last < ?::timestamptz then 1 else f.failures + 1 end",
              k.hash(),
              now,
              now.minus(FORGOTTEN))
          .execute();
    }
  }

  /** A right password clears the count for this address from this place. */
  void succeeded(String email, String from) {
    db.deleteFrom(SIGN_IN_FAILURE)
        .where(SIGN_IN_FAILURE.KEY.eq(keys(email, from).get(0).hash()))
        .execute();
    db.deleteFrom(SIGN_IN_FAILURE)
        .where(SIGN_IN_FAILURE.LAST.lt(OffsetDateTime.now(clock).minus(FORGOTTEN)))
        .execute();
  }
}
