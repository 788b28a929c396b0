package org.zephyrmist.server.handover;

import static org.zephyrmist.server.db.Tables.HAND_OVER_STEPS;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.PLATFORM;

import java.time.LocalDate;
import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.handover.HandOverKind;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** What people add to hand-overs. */
@Component
class HandOverEdits {
  private final DSLContext db;
  private final Events events;

  HandOverEdits(DSLContext db, Events events) {
    this.db = db;
    this.events = events;
  }

  /**
   * Sets day, owner and note of hand-overs of one kind.
   *
   * @param due null: the day before the term
   * @param owner mail address of a person; empty: whose it is by itself
   */
  @Transactional
  public void set(
      HandOverKind kind,
      String host,
      List<UUID> sections,
      LocalDate due,
      String owner,
      String note,
      SignedIn who) {
    UUID person = owner.isBlank() ? null : person(owner.strip());
    db.query(
            "insert into hand_over (kind, section_id, host, owner_id, due, note) select ?,"
                + " unnest(?::uuid[]), ?, ?::uuid, ?::date, ? on conflict (kind, section_id, host)"
                + " do update set owner_id = excluded.owner_id, due = excluded.due,"
                + " note = excluded.note",
            kind.name(),
            sections.toArray(UUID[]::new),
            host,
            person,
            due,
            note.strip())
        .execute();
    events.add(
        who.id(),
        "set a hand-over",
        words(kind, host),
        sections.size() + " sections" + (due == null ? "" : ", due " + due),
        "/hand-overs");
  }

  private static String words(HandOverKind kind, String host) {
    return ReminderMail.words(kind, host.isEmpty() ? "" : host);
  }

  private UUID person(String address) {
    return db.select(PERSON.ID)
        .from(PERSON)
        .where(DSL.lower(PERSON.EMAIL).eq(address.toLowerCase(java.util.Locale.ROOT)))
        .fetchOptional(PERSON.ID)
        .orElseThrow(
            () ->
                Refusal.bad(
                    "Nobody here has the address " + address + ".",
                    "Write that of a person of the college, or leave it empty."));
  }

  /** How a kind is done, for one tool or all, on one platform or all; empty: nothing is said. */
  @Transactional
  public void steps(
      HandOverKind kind, UUID platform, String host, String steps, String contact, SignedIn who) {
    if (platform != null && !db.fetchExists(PLATFORM, PLATFORM.ID.eq(platform))) {
      throw Refusal.notFound("platform");
    }
    db.deleteFrom(HAND_OVER_STEPS)
        .where(HAND_OVER_STEPS.KIND.eq(kind))
        .and(HAND_OVER_STEPS.PLATFORM_ID.isNotDistinctFrom(platform))
        .and(HAND_OVER_STEPS.HOST.eq(host))
        .execute();
    if (!steps.isBlank() || !contact.isBlank()) {
      db.insertInto(HAND_OVER_STEPS)
          .values(kind, platform, host, steps.strip(), contact.strip())
          .execute();
    }
    events.add(who.id(), "wrote how it is done", words(kind, host), contact.strip(), "/hand-overs");
  }
}
