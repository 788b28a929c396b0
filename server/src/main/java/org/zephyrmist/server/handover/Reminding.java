package org.zephyrmist.server.handover;

import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.handover.HandOverKind;
import org.zephyrmist.server.handover.HandOvers.HandOver;
import org.zephyrmist.server.mail.Mails;
import org.zephyrmist.server.mail.Mails.Note;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.people.SignedIn;

/** Mail that reminds of hand-overs, to those whose they are. */
@Component
class Reminding {
  private final DSLContext db;
  private final HandOvers handOvers;
  private final ReminderMail mail;
  private final Mails mails;
  private final Events events;
  private final Clock clock;

  Reminding(
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
   * Writes to those whose hand-overs these are, one mail to each, once a day.
   *
   * @return how many were written to
   */
  @Transactional
  public int of(HandOverKind kind, String host, List<UUID> asked, SignedIn who) {
    List<HandOver> all =
        handOvers.of(SECTION.ID.eq(DSL.any(asked.toArray(UUID[]::new)))).stream()
            .filter(h -> h.kind() == kind && h.host().equals(host))
            .toList();
    return of(kind, host, all, Optional.of(who));
  }

  /**
   * The same for hand-overs that are known.
   *
   * @param all of this kind and host
   * @param who asks for it; nobody: it is their day
   */
  @Transactional
  public int of(HandOverKind kind, String host, List<HandOver> all, Optional<SignedIn> who) {
    OffsetDateTime now = OffsetDateTime.now(clock);
    List<Note> notes = new ArrayList<>();
    byPerson(kind, all)
        .forEach(
            (person, its) ->
                notes.add(new Note(person, mail.subject(kind, its), mail.body(kind, its, who))));
    int written = mails.put("hand-over " + kind + " " + host + " " + now.toLocalDate(), notes);
    if (written > 0) {
      reminded(kind, host, all, now);
      events.add(
          who.map(SignedIn::id).orElse(null),
          "reminded of",
          ReminderMail.words(kind, host),
          all.size() + " sections, " + written + " people",
          "/hand-overs");
    }
    return written;
  }

  private void reminded(HandOverKind kind, String host, List<HandOver> all, OffsetDateTime now) {
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
  private Map<UUID, List<HandOver>> byPerson(HandOverKind kind, List<HandOver> all) {
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
    Map<UUID, List<HandOver>> byPerson = new LinkedHashMap<>();
    for (HandOver h : all) {
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
