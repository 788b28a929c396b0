package org.zephyrmist.server.mail;

import static org.zephyrmist.server.db.Tables.MAIL;

import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.OffsetDateTime;
import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.eclipse.angus.mail.smtp.SMTPAddressFailedException;
import org.eclipse.angus.mail.smtp.SMTPSendFailedException;
import org.jooq.DSLContext;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.mail.MailException;
import org.springframework.mail.MailSendException;
import org.springframework.mail.javamail.JavaMailSender;
import org.springframework.mail.javamail.MimeMessageHelper;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.db.tables.records.MailRecord;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;

/**
 * Sends one mail. A mail server that is down is tried again for as long as it takes; one that does
 * not take an address is believed. Should this server die after the mail was taken and before that
 * was noted, it is sent once more under the same message id, by which a mailbox knows it.
 */
@Component
class SendMail implements Job {
  static final String NAME = "send-mail";
  private static final Logger LOG = LoggerFactory.getLogger(SendMail.class);
  private static final Duration LONGEST = Duration.ofMinutes(10);
  private static final int REFUSED_FROM = 500;
  private final DSLContext db;
  private final Mails mails;
  private final JavaMailSender sender;
  private final Settings settings;
  private final Clock clock;
  private final TransactionTemplate transaction;

  SendMail(
      DSLContext db,
      Mails mails,
      JavaMailSender sender,
      Settings settings,
      Clock clock,
      TransactionTemplate transaction) {
    this.db = db;
    this.mails = mails;
    this.sender = sender;
    this.settings = settings;
    this.clock = clock;
    this.transaction = transaction;
  }

  @Override
  public String name() {
    return NAME;
  }

  @Override
  public Outcome run(UUID id) {
    return transaction.execute(t -> send(id));
  }

  private Outcome send(UUID id) {
    MailRecord m = db.selectFrom(MAIL).where(MAIL.ID.eq(id)).forUpdate().fetchOne();
    if (m == null || m.getSentAt() != null || m.getProblem() != null) {
      return Outcome.ENDED;
    }
    try {
      sender.send(message(m));
      m.setSentAt(OffsetDateTime.now(clock));
      m.update();
      return Outcome.ENDED;
    } catch (MailException e) {
      if (refused(e)) {
        m.setProblem("the mail server does not take this address");
        m.update();
        return Outcome.ENDED;
      }
      LOG.info("Mail {} could not be sent: {}", id, e.getMessage());
      return Outcome.after(pause(m));
    }
  }

  /** As long as it has waited already, within bounds. */
  private Duration pause(MailRecord m) {
    Duration waited = Duration.between(m.getMadeAt(), OffsetDateTime.now(clock));
    Duration least = settings.firstPause();
    return waited.compareTo(least) < 0 ? least : waited.compareTo(LONGEST) > 0 ? LONGEST : waited;
  }

  private MimeMessage message(MailRecord m) {
    try {
      MimeMessage message = new Identified(m.getId(), settings.mailFrom());
      MimeMessageHelper helper = new MimeMessageHelper(message, StandardCharsets.UTF_8.name());
      helper.setFrom(settings.mailFrom());
      helper.setTo(m.getAddress());
      helper.setSubject(m.getSubject());
      helper.setText(m.getBody());
      return message;
    } catch (MessagingException e) {
      throw new MailSendException("No mail to " + m.getAddress(), e);
    }
  }

  /** A message that is always the same one. */
  private static final class Identified extends MimeMessage {
    private final String id;

    Identified(UUID mail, String from) {
      super((Session) null);
      this.id = "<" + mail + from.substring(from.indexOf('@')) + ">";
    }

    @Override
    protected void updateMessageID() throws MessagingException {
      setHeader("Message-ID", id);
    }
  }

  /** Whether the server said that it will never take it (RFC 5321, 4.2.1: 5yz). */
  private static boolean refused(Throwable e) {
    if (e instanceof MailSendException m
        && m.getMessageExceptions() != null
        && List.of(m.getMessageExceptions()).stream().anyMatch(SendMail::refused)) {
      return true;
    }
    if (e instanceof SMTPSendFailedException f) {
      return f.getReturnCode() >= REFUSED_FROM;
    }
    if (e instanceof SMTPAddressFailedException f) {
      return f.getReturnCode() >= REFUSED_FROM;
    }
    if (e instanceof MessagingException m && m.getNextException() != null) {
      return refused(m.getNextException());
    }
    return e.getCause() != null && e.getCause() != e && refused(e.getCause());
  }

  @Override
  public Collection<UUID> strays() {
    return mails.on() ? mails.unsent() : List.of();
  }
}
