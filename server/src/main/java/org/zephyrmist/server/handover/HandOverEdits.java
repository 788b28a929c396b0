package org.zephyrmist.server.handover;

import static org.zephyrmist.server.db.Tables.HAND_OVER_STEPS;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.PLATFORM;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;

import java.time.Clock;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.handover.HandOverKind;
import org.zephyrmist.server.mail.Mails;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** What people add to hand-overs, and the mail that reminds of them. */
@Component
class HandOverEdits {
  private final DSLContext db;
  private final HandOvers handOvers;
  private final ReminderMail mail;
  private final Mails mails;
  private final Events events;
  private final Clock clock;

  HandOverEdits(
      DSLContext db,
      HandOvers handOvers,
      ReminderMail mail,
      Mails mails,
      Events events,
      Clock clock) {
    this.db = db;
    this.handOvers = handOvers;
    this.mail = mail;
    this.mails = mails;
    this.events = events;
    this.clock = clock;
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

  /**
   * Writes to those whose hand-overs these are, one mail to each, once a day.
   *
   * @return how many were written to
   */
  @Transactional
  public int remind(HandOverKind kind, String host, List<UUID> asked, SignedIn who) {
    List<HandOvers.HandOver> all =
        handOvers.of(SECTION.ID.eq(DSL.any(asked.toArray(UUID[]::new)))).stream()
            .filter(h -> h.kind() == kind && h.host().equals(host))
            .toList();
    Map<UUID, List<HandOvers.HandOver>> byPerson = byPerson(kind, all);
    OffsetDateTime now = OffsetDateTime.now(clock);
    String about = "hand-over " + kind + " " + host + " " + now.toLocalDate();
    int written = 0;
    for (Map.Entry<UUID, List<HandOvers.HandOver>> e : byPerson.entrySet()) {
      written +=
          mails.put(
              about,
              List.of(e.getKey()),
              mail.subject(kind, e.getValue()),
              mail.body(kind, e.getValue(), who));
    }
    if (written > 0) {
      reminded(kind, host, all, now);
      events.add(
          who.id(),
          "reminded of",
          words(kind, host),
          all.size() + " sections, " + written + " people",
          "/hand-overs");
    }
    return written;
  }

  private void reminded(
      HandOverKind kind, String host, List<HandOvers.HandOver> all, OffsetDateTime now) {
    db.query(
            "insert into hand_over (kind, section_id, host, reminded_at) select ?,"
                + " unnest(?::uuid[]), ?, ?::timestamptz on conflict (kind, section_id, host)"
                + " do update set reminded_at = excluded.reminded_at",
            kind.name(),
            all.stream().map(h -> h.section().id()).toArray(UUID[]::new),
            host,
            now)
        .execute();
  }

  /** Whose each is: the one who was named, else all of those whose kind it is. */
  private Map<UUID, List<HandOvers.HandOver>> byPerson(
      HandOverKind kind, List<HandOvers.HandOver> all) {
    Map<UUID, List<UUID>> instructors =
        db.select(SECTION_INSTRUCTOR.SECTION_ID, SECTION_INSTRUCTOR.PERSON_ID)
            .from(SECTION_INSTRUCTOR)
            .where(
                SECTION_INSTRUCTOR.SECTION_ID.eq(
                    DSL.any(all.stream().map(h -> h.section().id()).toArray(UUID[]::new))))
            .fetchGroups(SECTION_INSTRUCTOR.SECTION_ID, SECTION_INSTRUCTOR.PERSON_ID);
    List<UUID> administrators =
        db.select(PERSON.ID)
            .from(PERSON)
            .where(PERSON.ROLE.eq(Role.ADMINISTRATOR))
            .fetch(PERSON.ID);
    Map<UUID, List<HandOvers.HandOver>> byPerson = new LinkedHashMap<>();
    for (HandOvers.HandOver h : all) {
      List<UUID> whose =
          h.added()
              .owner()
              .map(List::of)
              .orElse(
                  kind.who() == HandOverKind.Who.INSTRUCTORS
                      ? instructors.getOrDefault(h.section().id(), List.of())
                      : administrators);
      whose.forEach(p -> byPerson.computeIfAbsent(p, x -> new ArrayList<>()).add(h));
    }
    return byPerson;
  }
}
