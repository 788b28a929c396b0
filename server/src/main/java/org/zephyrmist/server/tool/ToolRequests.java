package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.TOOL_CONNECTION;
import static org.zephyrmist.server.db.Tables.TOOL_HOST;
import static org.zephyrmist.server.db.Tables.TOOL_REQUEST;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.mail.Mails;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** That a host be approved: asked for by whoever needs it, decided by an administrator. */
@Component
class ToolRequests {
  private static final String APPROVED = "APPROVED";
  private static final String DECLINED = "DECLINED";
  private final DSLContext db;
  private final Events events;
  private final Mails mails;
  private final Settings settings;
  private final Clock clock;

  ToolRequests(DSLContext db, Events events, Mails mails, Settings settings, Clock clock) {
    this.db = db;
    this.events = events;
    this.mails = mails;
    this.settings = settings;
    this.clock = clock;
  }

  List<RequestApi.RequestView> list() {
    var decider = PERSON.as("decider");
    return db.select(TOOL_REQUEST.fields())
        .select(PERSON.NAME, decider.NAME)
        .from(TOOL_REQUEST)
        .join(PERSON)
        .on(PERSON.ID.eq(TOOL_REQUEST.ASKED_BY))
        .leftJoin(decider)
        .on(decider.ID.eq(TOOL_REQUEST.DECIDED_BY))
        .orderBy(TOOL_REQUEST.DECIDED_AT.desc().nullsFirst(), TOOL_REQUEST.ASKED_AT)
        .limit(200)
        .fetch(
            r ->
                new RequestApi.RequestView(
                    r.get(TOOL_REQUEST.ID),
                    r.get(TOOL_REQUEST.HOST),
                    r.get(TOOL_REQUEST.REASON),
                    r.get(PERSON.NAME),
                    r.get(TOOL_REQUEST.ASKED_AT),
                    Optional.ofNullable(r.get(TOOL_REQUEST.DECIDED))
                        .map(APPROVED::equals)
                        .orElse(null),
                    r.get(decider.NAME),
                    r.get(TOOL_REQUEST.DECIDED_AT),
                    r.get(TOOL_REQUEST.CONDITIONS)));
  }

  @Transactional
  public UUID ask(String given, String reason, SignedIn who) {
    String host = ConnectionChecks.host(given);
    UUID id = UUID.randomUUID();
    int first =
        db.insertInto(TOOL_REQUEST)
            .set(TOOL_REQUEST.ID, id)
            .set(TOOL_REQUEST.HOST, host)
            .set(TOOL_REQUEST.REASON, reason.strip())
            .set(TOOL_REQUEST.ASKED_BY, who.id())
            .set(TOOL_REQUEST.ASKED_AT, OffsetDateTime.now(clock))
            .onConflictDoNothing()
            .execute();
    if (first == 0) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "Somebody has asked for " + host + " already.",
          "It is decided for all who need it; look at the list of requests.");
    }
    events.add(who.id(), "asked for the approval of", host, reason.strip(), "/tools/requests");
    List<UUID> deciders =
        db.select(PERSON.ID)
            .from(PERSON)
            .where(PERSON.ROLE.eq(Role.ADMINISTRATOR))
            .and(PERSON.EMAIL.isNotNull())
            .fetch(PERSON.ID);
    mails.put(
        "tool request " + id,
        deciders,
        "May " + host + " be used?",
        who.name()
            + " asks for the tool at "
            + host
            + ":\n\n"
            + reason.strip()
            + "\n\nDecide at "
            + settings.address()
            + "/tools/requests");
    return id;
  }

  @Transactional
  public void decide(UUID id, boolean approved, String conditions, SignedIn who) {
    var r =
        db.selectFrom(TOOL_REQUEST)
            .where(TOOL_REQUEST.ID.eq(id))
            .forUpdate()
            .fetchOptional()
            .orElseThrow(() -> Refusal.notFound("request"));
    if (r.getDecided() != null) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "This was decided already.",
          "Change the connection if it is to be otherwise now.");
    }
    r.setDecided(approved ? APPROVED : DECLINED);
    r.setDecidedBy(who.id());
    r.setDecidedAt(OffsetDateTime.now(clock));
    r.setConditions(conditions.strip());
    r.update();
    if (approved) {
      db.update(TOOL_CONNECTION)
          .set(TOOL_CONNECTION.APPROVED_AT, OffsetDateTime.now(clock))
          .set(TOOL_CONNECTION.APPROVED_BY, who.id())
          .where(TOOL_CONNECTION.APPROVED_AT.isNull())
          .and(
              TOOL_CONNECTION.ID.in(
                  DSL.select(TOOL_HOST.CONNECTION_ID)
                      .from(TOOL_HOST)
                      .where(TOOL_HOST.HOST.eq(r.getHost()))))
          .execute();
    }
    String verb = approved ? "approved" : "declined";
    events.add(who.id(), verb + " the tool at", r.getHost(), conditions.strip(), "/tools");
    mails.put(
        "tool decision " + id,
        List.of(r.getAskedBy()),
        r.getHost() + " is " + verb,
        who.name()
            + " has "
            + verb
            + " the tool at "
            + r.getHost()
            + "."
            + (conditions.isBlank() ? "" : "\n\n" + conditions.strip())
            + "\n\n"
            + settings.address()
            + "/tools?host="
            + r.getHost());
  }
}
