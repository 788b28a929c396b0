package org.zephyrmist.server.people;

import static org.zephyrmist.server.db.Tables.SIGN_IN_FAILURE;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.OffsetDateTime;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.ThreadLocalRandom;
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

  /** Two seconds after the last free try, twice as long each time, fifteen minutes at the most. */
  private static final String PAUSE =
      "make_interval(secs => case when f.failures < ? then 0 else"
          + " least(900, 2 * power(2, least(f.failures - ?, 9))) end)";

  private final DSLContext db;
  private final Clock clock;

  SignIns(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  private record Key(byte[] hash, int free) {}

  /** The place comes first: from one that has to wait, nothing is kept of further addresses. */
  private static List<Key> keys(String email, String from) {
    String address = email.strip().toLowerCase(Locale.ROOT);
    return List.of(
        new Key(hash("from " + from), 30),
        new Key(hash("both " + from + " " + address), 5),
        new Key(hash("address " + address), 50));
  }

  private static byte[] hash(String text) {
    return Fingerprint.sha256().digest(text.getBytes(StandardCharsets.UTF_8));
  }

  /**
   * Counts a try before its password is looked at, so that many at once count too.
   *
   * @return how long it has to wait; zero if it may go on
   */
  Duration begin(String email, String from) {
    OffsetDateTime now = OffsetDateTime.now(clock).truncatedTo(ChronoUnit.MICROS);
    if (ThreadLocalRandom.current().nextInt(50) == 0) {
      forget(now);
    }
    for (Key k : keys(email, from)) {
      Duration wait = count(k, now);
      if (!wait.isZero()) {
        return wait;
      }
    }
    return Duration.ZERO;
  }

  /** One statement, so that of tries at once each sees those before it. */
  private Duration count(Key k, OffsetDateTime now) {
    // a free try counts even where another, a moment later by the clock, was quicker
    String goesOn =
        "(f.last < ?::timestamptz or f.failures < ? or ?::timestamptz >= f.last + " + PAUSE + ")";
    OffsetDateTime forgotten = now.minus(FORGOTTEN);
    var r =
        db.fetchSingle(
            "insert into sign_in_failure as f (key, failures, last) values (?, 1, ?::timestamptz)"
                + " on conflict (key) do update set failures = case when f.last < ?::timestamptz"
                + "   then 1 when "
                + goesOn
                + " then f.failures + 1 else f.failures end,"
                + "   last = case when "
                + goesOn
                + " then ?::timestamptz else f.last end"
                + " returning last, extract(epoch from last - ?::timestamptz + "
                + PAUSE.replace("f.failures", "failures")
                + ")",
            k.hash(),
            now,
            forgotten,
            forgotten,
            k.free(),
            now,
            k.free(),
            k.free(),
            forgotten,
            k.free(),
            now,
            k.free(),
            k.free(),
            now,
            now,
            k.free(),
            k.free());
    return r.get(0, OffsetDateTime.class).isEqual(now)
        ? Duration.ZERO
        : Duration.ofSeconds(Math.max(1, (long) Math.ceil(r.get(1, Double.class))));
  }

  private void forget(OffsetDateTime now) {
    db.deleteFrom(SIGN_IN_FAILURE).where(SIGN_IN_FAILURE.LAST.lt(now.minus(FORGOTTEN))).execute();
  }

  /** A right password was no guess: this try does not count, nor those for this address here. */
  void succeeded(String email, String from) {
    List<Key> keys = keys(email, from);
    db.deleteFrom(SIGN_IN_FAILURE).where(SIGN_IN_FAILURE.KEY.eq(keys.get(1).hash())).execute();
    db.update(SIGN_IN_FAILURE)
        .set(SIGN_IN_FAILURE.FAILURES, SIGN_IN_FAILURE.FAILURES.minus(1))
        .where(SIGN_IN_FAILURE.KEY.in(keys.get(0).hash(), keys.get(2).hash()))
        .and(SIGN_IN_FAILURE.FAILURES.gt(0))
        .execute();
  }
}
