package org.zephyrmist.standins.mailbox;

import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.util.Properties;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.SmartLifecycle;
import org.springframework.stereotype.Component;
import org.subethamail.smtp.RejectException;
import org.subethamail.smtp.server.SMTPServer;

/** Takes mail over SMTP (RFC 5321), on loopback alone. */
@Component
class SmtpPort implements SmartLifecycle {
  private static final int NOT_NOW = 451;
  private static final int NOBODY = 550;
  private final Mailbox mailbox;
  private final int port;
  private SMTPServer server;

  SmtpPort(Mailbox mailbox, @Value("${practice.smtp-port}") int port) {
    this.mailbox = mailbox;
    this.port = port;
  }

  @Override
  public void start() {
    server =
        SMTPServer.port(port)
            .bindAddress(InetAddress.getLoopbackAddress())
            .hostName("mailbox.example")
            .messageHandler((context, from, to, data) -> take(to, data))
            .build();
    server.start();
  }

  private void take(String to, byte[] data) throws RejectException {
    if (mailbox.closed()) {
      throw new RejectException(NOT_NOW, "The mailbox is closed for a while");
    }
    if (to.endsWith("@bounces.example")) {
      throw new RejectException(NOBODY, "Nobody of this name is here");
    }
    try {
      MimeMessage m =
          new MimeMessage(Session.getInstance(new Properties()), new ByteArrayInputStream(data));
      mailbox.keep(m.getMessageID(), to, m.getSubject(), String.valueOf(m.getContent()));
    } catch (MessagingException | IOException e) {
      throw new RejectException(NOBODY, "This is no mail: " + e.getMessage());
    }
  }

  @Override
  public void stop() {
    server.stop();
    server = null;
  }

  @Override
  public boolean isRunning() {
    return server != null;
  }
}
