package org.zephyrmist.server.people;

import static org.zephyrmist.server.db.Tables.ACCESS_TOKEN;
import static org.zephyrmist.server.db.Tables.CALENDAR_ADDRESS;
import static org.zephyrmist.server.db.Tables.PERSON;

import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.Arrays;
import java.util.Base64;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.server.db.tables.records.AccessTokenRecord;
import org.zephyrmist.server.web.Refusal;

/** Personal access tokens: 256 random bits each, kept as a hash, shown once. */
@Component
public class Tokens {
  private static final String BEGINNING = "zephyrmist_";
  private static final int MOST = 20;
  private final SecureRandom random = new SecureRandom();
  private final DSLContext db;
  private final Clock clock;

  Tokens(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /** Who calls with a token, and for what it may be used. */
  record Bearer(SignedIn person, Set<Scope> scopes) {}

  List<AccessTokenRecord> of(UUID person) {
    return db.selectFrom(ACCESS_TOKEN)
        .where(ACCESS_TOKEN.PERSON_ID.eq(person))
        .orderBy(ACCESS_TOKEN.MADE_AT.desc())
        .fetch();
  }

  /** A new token; its text is given this once. */
  String make(UUID person, String name, Set<Scope> scopes, int days) {
    if (of(person).size() >= MOST) {
      throw Refusal.bad("You have " + MOST + " tokens.", "End one that is not used any more.");
    }
    byte[] secret = new byte[32];
    random.nextBytes(secret);
    String text = BEGINNING + Base64.getUrlEncoder().withoutPadding().encodeToString(secret);
    OffsetDateTime now = OffsetDateTime.now(clock);
    db.insertInto(ACCESS_TOKEN)
        .set(ACCESS_TOKEN.ID, UUID.randomUUID())
        .set(ACCESS_TOKEN.PERSON_ID, person)
        .set(ACCESS_TOKEN.NAME, name)
        .set(ACCESS_TOKEN.HASH, hash(text))
        .set(ACCESS_TOKEN.SCOPES, scopes.stream().map(Enum::name).toArray(String[]::new))
        .set(ACCESS_TOKEN.MADE_AT, now)
        .set(ACCESS_TOKEN.EXPIRES_AT, now.plusDays(days))
        .execute();
    return text;
  }

  /**
   * @return its name
   */
  String end(UUID person, UUID token) {
    return db.deleteFrom(ACCESS_TOKEN)
        .where(ACCESS_TOKEN.ID.eq(token))
        .and(ACCESS_TOKEN.PERSON_ID.eq(person))
        .returningResult(ACCESS_TOKEN.NAME)
        .fetchOptional(ACCESS_TOKEN.NAME)
        .orElseThrow(() -> Refusal.notFound("token"));
  }

  void endAll(UUID person) {
    db.deleteFrom(ACCESS_TOKEN).where(ACCESS_TOKEN.PERSON_ID.eq(person)).execute();
    db.deleteFrom(CALENDAR_ADDRESS).where(CALENDAR_ADDRESS.PERSON_ID.eq(person)).execute();
  }

  /** Whose token this is; nothing if there is none or it has expired. Notes its use by the hour. */
  Optional<Bearer> find(String text) {
    OffsetDateTime now = OffsetDateTime.now(clock);
    return db.select(ACCESS_TOKEN.fields())
        .select(PERSON.fields())
        .from(ACCESS_TOKEN)
        .join(PERSON)
        .on(PERSON.ID.eq(ACCESS_TOKEN.PERSON_ID))
        .where(ACCESS_TOKEN.HASH.eq(hash(text)))
        .and(ACCESS_TOKEN.EXPIRES_AT.gt(now))
        .fetchOptional()
        .map(
            r -> {
              AccessTokenRecord t = r.into(ACCESS_TOKEN);
              if (t.getUsedAt() == null || t.getUsedAt().isBefore(now.minusHours(1))) {
                db.update(ACCESS_TOKEN)
                    .set(ACCESS_TOKEN.USED_AT, now)
                    .where(ACCESS_TOKEN.ID.eq(t.getId()))
                    .execute();
              }
              Set<Scope> scopes = EnumSet.noneOf(Scope.class);
              Arrays.stream(t.getScopes()).map(Scope::valueOf).forEach(scopes::add);
              return new Bearer(People.signedIn(r.into(PERSON)), scopes);
            });
  }

  private static byte[] hash(String text) {
    return Fingerprint.sha256().digest(text.getBytes(StandardCharsets.UTF_8));
  }
}
