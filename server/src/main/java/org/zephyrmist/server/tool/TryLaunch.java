package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.LAUNCH_TEST;
import static org.zephyrmist.server.db.Tables.SECTION;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.Optional;
import java.util.Set;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.lti.Registration;
import org.zephyrmist.core.tool.BasicLaunch;
import org.zephyrmist.core.tool.Privacy;
import org.zephyrmist.core.tool.RelinkRule.Link;
import org.zephyrmist.core.tool.Way;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.tool.ToolLaunches.Answered;
import org.zephyrmist.server.web.Refusal;

/** One launch before anything is saved, in a course that no section has. */
@Component
class TryLaunch {
  private static final String COURSE = "zephyrmist-try";
  private final DSLContext db;
  private final KnownLinks links;
  private final ToolSections sections;
  private final ToolConnections connections;
  private final ToolLaunches launches;
  private final Events events;
  private final Clock clock;

  TryLaunch(
      DSLContext db,
      KnownLinks links,
      ToolSections sections,
      ToolConnections connections,
      ToolLaunches launches,
      Events events,
      Clock clock) {
    this.db = db;
    this.links = links;
    this.sections = sections;
    this.connections = connections;
    this.launches = launches;
    this.events = events;
    this.clock = clock;
  }

  ConnectionApi.TriedAnswer launch(ConnectionApi.TriedLaunch t, SignedIn who) {
    String host = ConnectionChecks.host(t.host());
    ConnectionChecks.blanks("key", t.key());
    ConnectionChecks.blanks("secret", t.secret() == null ? "" : t.secret());
    Link link = links.any(host);
    Answered a =
        launches.send(
            new BasicLaunch(
                link,
                COURSE,
                "Zephyrmist tries whether this opens",
                new BasicLaunch.Course(COURSE, "TRY", "Zephyrmist tries whether this opens"),
                new BasicLaunch.Person(COURSE, "Zephyrmist", "", BasicLaunch.Role.INSTRUCTOR),
                new Privacy(true, false),
                Optional.empty(),
                "zephyrmist",
                Optional.of(launches.back())),
            signer(t),
            Set.of(host));
    keep(t, host, a, who);
    return new ConnectionApi.TriedAnswer(
        a.answer().opened(), a.answer().said(), a.millis(), link.address());
  }

  private Optional<Signer> signer(ConnectionApi.TriedLaunch t) {
    if (t.way() == Way.OPEN) {
      return Optional.empty();
    }
    if (t.way() == Way.REGISTRATION) {
      if (t.registration() == null) {
        throw Refusal.bad("There is no registration to launch by.", "Enter its addresses.");
      }
      return Optional.of(as(t, "", Optional.of(t.registration().of(t.key()))));
    }
    boolean sent = t.secret() != null && !t.secret().isEmpty();
    if (!sent && (t.connection() == null || !connections.get(t.connection()).secret())) {
      throw Refusal.bad("There is no secret to sign with.", "Enter the shared secret.");
    }
    if (t.key().isEmpty()) {
      throw Refusal.bad("There is no key to sign with.", "Enter the consumer key.");
    }
    return Optional.of(
        as(t, sent ? t.secret() : connections.secret(t.connection()), Optional.empty()));
  }

  /** With the values of a section, where one is named. */
  private Signer as(
      ConnectionApi.TriedLaunch t, String secret, Optional<Registration> registration) {
    Signer raw = new Signer(t.key(), secret, registration);
    return sections.where(SECTION.ID.eq(t.section())).stream().findFirst().map(raw::in).orElse(raw);
  }

  private void keep(ConnectionApi.TriedLaunch t, String host, Answered a, SignedIn who) {
    db.insertInto(LAUNCH_TEST)
        .set(LAUNCH_TEST.CONNECTION_ID, t.connection())
        .set(LAUNCH_TEST.HOST, host)
        .set(LAUNCH_TEST.ROLE, BasicLaunch.Role.INSTRUCTOR)
        .set(LAUNCH_TEST.OUTCOME, a.answer().outcome())
        .set(LAUNCH_TEST.SAID, a.answer().said())
        .set(LAUNCH_TEST.MILLIS, a.millis())
        .set(LAUNCH_TEST.PERSON_ID, who.id())
        .set(LAUNCH_TEST.AT, OffsetDateTime.now(clock))
        .execute();
    events.add(who.id(), "tried a launch of", host, a.answer().opened() ? "it opened" : "refused");
  }
}
