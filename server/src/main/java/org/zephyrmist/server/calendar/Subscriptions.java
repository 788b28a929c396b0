package org.zephyrmist.server.calendar;

import static org.zephyrmist.server.db.Tables.CALENDAR_ADDRESS;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TERM;

import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.server.people.People;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/**
 * Addresses at which calendar programs find what is due. Whoever has one sees what its person may
 * see at that time; each is kept as a hash, shown once, and ended by its person.
 */
@Component
class Subscriptions {
  private static final int MOST = 20;
  private final SecureRandom random = new SecureRandom();
  private final DSLContext db;
  private final People people;
  private final DueDates dates;
  private final Clock clock;

  Subscriptions(DSLContext db, People people, DueDates dates, Clock clock) {
    this.db = db;
    this.people = people;
    this.dates = dates;
    this.clock = clock;
  }

  /**
   * @param course its code; none: all courses
   */
  record Asked(UUID term, Optional<String> course, Optional<UUID> section) {}

  /** The secret part of a new address, told this once. */
  @Transactional
  public String make(Asked a, SignedIn who) {
    if (db.fetchCount(CALENDAR_ADDRESS, CALENDAR_ADDRESS.PERSON_ID.eq(who.id())) >= MOST) {
      throw Refusal.bad("You have " + MOST + " such addresses.", "End one that is not used.");
    }
    if (!db.fetchExists(TERM, TERM.ID.eq(a.term()))) {
      throw Refusal.notFound("term");
    }
    a.section().ifPresent(s -> reached(a, s, who));
    byte[] secret = new byte[32];
    random.nextBytes(secret);
    String text = Base64.getUrlEncoder().withoutPadding().encodeToString(secret);
    db.insertInto(CALENDAR_ADDRESS)
        .set(CALENDAR_ADDRESS.ID, UUID.randomUUID())
        .set(CALENDAR_ADDRESS.PERSON_ID, who.id())
        .set(CALENDAR_ADDRESS.HASH, hash(text))
        .set(CALENDAR_ADDRESS.TERM_ID, a.term())
        .set(CALENDAR_ADDRESS.COURSE, a.course().orElse(null))
        .set(CALENDAR_ADDRESS.SECTION_ID, a.section().orElse(null))
        .set(CALENDAR_ADDRESS.MADE_AT, OffsetDateTime.now(clock))
        .execute();
    return text;
  }

  private void reached(Asked a, UUID section, SignedIn who) {
    if (!dates.reaches(a.term(), section, who)) {
      throw Refusal.notFound("section");
    }
  }

  /** One of a person's own. */
  record Address(UUID id, String about, OffsetDateTime madeAt, Optional<OffsetDateTime> usedAt) {}

  List<Address> of(SignedIn who) {
    return db.select(CALENDAR_ADDRESS.fields())
        .select(TERM.TITLE, SECTION.CODE)
        .from(CALENDAR_ADDRESS)
        .join(TERM)
        .on(TERM.ID.eq(CALENDAR_ADDRESS.TERM_ID))
        .leftJoin(SECTION)
        .on(SECTION.ID.eq(CALENDAR_ADDRESS.SECTION_ID))
        .where(CALENDAR_ADDRESS.PERSON_ID.eq(who.id()))
        .orderBy(CALENDAR_ADDRESS.MADE_AT.desc())
        .fetch(
            r ->
                new Address(
                    r.get(CALENDAR_ADDRESS.ID),
                    Optional.ofNullable(r.get(SECTION.CODE))
                            .or(() -> Optional.ofNullable(r.get(CALENDAR_ADDRESS.COURSE)))
                            .orElse("All sections")
                        + ", "
                        + r.get(TERM.TITLE),
                    r.get(CALENDAR_ADDRESS.MADE_AT),
                    Optional.ofNullable(r.get(CALENDAR_ADDRESS.USED_AT))));
  }

  @Transactional
  public void end(UUID id, SignedIn who) {
    int n =
        db.deleteFrom(CALENDAR_ADDRESS)
            .where(CALENDAR_ADDRESS.ID.eq(id))
            .and(CALENDAR_ADDRESS.PERSON_ID.eq(who.id()))
            .execute();
    if (n == 0) {
      throw Refusal.notFound("address");
    }
  }

  /** What is due there, as its person may see it now. */
  List<DueDates.Held> due(String secret) {
    var r =
        db.select(CALENDAR_ADDRESS.fields())
            .select(PERSON.EMAIL)
            .from(CALENDAR_ADDRESS)
            .join(PERSON)
            .on(PERSON.ID.eq(CALENDAR_ADDRESS.PERSON_ID))
            .where(CALENDAR_ADDRESS.HASH.eq(hash(secret)))
            .and(PERSON.EMAIL.isNotNull())
            .fetchOptional()
            .orElseThrow(() -> Refusal.notFound("calendar"));
    OffsetDateTime now = OffsetDateTime.now(clock);
    OffsetDateTime used = r.get(CALENDAR_ADDRESS.USED_AT);
    if (used == null || used.isBefore(now.minusHours(1))) {
      db.update(CALENDAR_ADDRESS)
          .set(CALENDAR_ADDRESS.USED_AT, now)
          .where(CALENDAR_ADDRESS.ID.eq(r.get(CALENDAR_ADDRESS.ID)))
          .execute();
    }
    return dates.of(
        r.get(CALENDAR_ADDRESS.TERM_ID),
        r.get(CALENDAR_ADDRESS.COURSE),
        r.get(CALENDAR_ADDRESS.SECTION_ID),
        person(r.get(PERSON.EMAIL)));
  }

  private SignedIn person(String email) {
    try {
      return people.loadUserByUsername(email);
    } catch (UsernameNotFoundException e) {
      throw Refusal.notFound("calendar"); // nobody signs in under that name any more
    }
  }

  private static byte[] hash(String text) {
    return Fingerprint.sha256().digest(text.getBytes(StandardCharsets.UTF_8));
  }
}
