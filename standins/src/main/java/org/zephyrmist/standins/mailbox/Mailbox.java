package org.zephyrmist.standins.mailbox;

import static org.zephyrmist.standins.db.Tables.MAIL;
import static org.zephyrmist.standins.db.Tables.MAILBOX;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** The mail that was received. */
@Component
class Mailbox {
  private static final int SHOWN = 500;
  private final DSLContext db;
  private final Clock clock;

  Mailbox(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /** A mail for one address. */
  record Received(
      String messageId, String recipient, String subject, String body, OffsetDateTime at) {}

  void keep(String messageId, String recipient, String subject, String body) {
    db.insertInto(MAIL)
        .set(MAIL.MESSAGE_ID, messageId)
        .set(MAIL.RECIPIENT, recipient)
        .set(MAIL.SUBJECT, subject)
        .set(MAIL.BODY, body)
        .set(MAIL.RECEIVED_AT, OffsetDateTime.now(clock))
        .execute();
  }

  /** The newest first. */
  List<Received> newest() {
    return db.selectFrom(MAIL)
        .orderBy(MAIL.ID.desc())
        .limit(SHOWN)
        .fetch(
            r ->
                new Received(
                    r.getMessageId(),
                    r.getRecipient(),
                    r.getSubject(),
                    r.getBody(),
                    r.getReceivedAt()));
  }

  boolean closed() {
    return db.select(MAILBOX.CLOSED).from(MAILBOX).fetchSingle(MAILBOX.CLOSED);
  }

  void close(boolean closed) {
    db.update(MAILBOX).set(MAILBOX.CLOSED, closed).execute();
  }
}
