package org.zephyrmist.server.mail;

import static org.zephyrmist.server.db.Tables.MAIL;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.Settings;

/** Mail that is to be sent, or was. */
@Component
public class Mails {
  private final DSLContext db;
  private final Clock clock;
  private final Settings settings;

  Mails(DSLContext db, Clock clock, Settings settings) {
    this.db = db;
    this.clock = clock;
    this.settings = settings;
  }

  /**
   * A mail to one person about a delivery.
   *
   * @param section what it is about; none: all of the delivery
   * @param done how many sections were done by then; 0 of a mail about one section
   */
  record Letter(
      UUID delivery,
      Optional<UUID> section,
      UUID person,
      int done,
      String address,
      String subject,
      String body) {}

  /** Whether mail is sent at all. */
  public boolean on() {
    return !settings.mailFrom().isBlank();
  }

  /**
   * Puts letters into the outgoing mail, each once, in the caller's transaction; the sweep sends.
   */
  void put(List<Letter> letters) {
    OffsetDateTime now = OffsetDateTime.now(clock);
    db.batch(
            letters.stream()
                .map(
                    l ->
                        db.insertInto(MAIL)
                            .set(MAIL.ID, UUID.randomUUID())
                            .set(MAIL.DELIVERY_ID, l.delivery())
                            .set(MAIL.SECTION_ID, l.section().orElse(null))
                            .set(MAIL.PERSON_ID, l.person())
                            .set(MAIL.DONE, l.done())
                            .set(MAIL.ADDRESS, l.address())
                            .set(MAIL.SUBJECT, l.subject())
                            .set(MAIL.BODY, l.body())
                            .set(MAIL.MADE_AT, now)
                            .onConflictDoNothing())
                .toList())
        .execute();
  }

  /** A mail to one person that is about no delivery. */
  public record Note(UUID person, String subject, String body) {}

  /**
   * The same for mail that is about no delivery.
   *
   * @param about what it is about, by which each person gets it once
   * @return how many had not got it yet, of those who have an address
   */
  public int put(String about, List<Note> notes) {
    return db.query(
            "insert into mail (id, person_id, address, subject, body, made_at, about)"
                + " select gen_random_uuid(), p.id, p.email, n.subject, n.body, ?::timestamptz, ?"
                + " from unnest(?::uuid[], ?::text[], ?::text[]) n(person, subject, body)"
                + " join person p on p.id = n.person where p.email is not null"
                + " on conflict do nothing",
            OffsetDateTime.now(clock),
            about,
            notes.stream().map(Note::person).toArray(UUID[]::new),
            notes.stream().map(Note::subject).toArray(String[]::new),
            notes.stream().map(Note::body).toArray(String[]::new))
        .execute();
  }

  /** The same words to several people. */
  public int put(String about, List<UUID> people, String subject, String body) {
    return put(about, people.stream().map(p -> new Note(p, subject, body)).toList());
  }

  /** Mail that no server has taken yet. */
  List<UUID> unsent() {
    return db.select(MAIL.ID)
        .from(MAIL)
        .where(MAIL.SENT_AT.isNull())
        .and(MAIL.PROBLEM.isNull())
        .and(
            "not exists (select 1 from scheduled_tasks t where t.task_instance = mail.id::text and"
                + " t.task_name = ?)",
            SendMail.NAME)
        .limit(1_000)
        .fetch(MAIL.ID);
  }

  /**
   * What became of the mail about a delivery, or all of an order.
   *
   * @param problems of mail that came back: to whom, and why
   */
  public record Told(int made, int sent, List<String> problems) {}

  public Told of(List<UUID> order) {
    var rows = db.selectFrom(MAIL).where(MAIL.DELIVERY_ID.in(order)).fetch();
    return new Told(
        rows.size(),
        (int) rows.stream().filter(r -> r.getSentAt() != null).count(),
        rows.stream()
            .filter(r -> r.getProblem() != null)
            .map(r -> r.getAddress() + ": " + r.getProblem())
            .toList());
  }
}
