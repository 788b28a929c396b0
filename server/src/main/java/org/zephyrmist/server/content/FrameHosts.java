package org.zephyrmist.server.content;

import static org.zephyrmist.server.db.Tables.FRAME_HOST;
import static org.zephyrmist.server.db.Tables.PERSON;

import jakarta.validation.constraints.NotNull;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.core.content.HostName;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Hosts whose frames may stand in texts, as administrators approved them. */
@Component
public class FrameHosts {
  private final DSLContext db;
  private final Clock clock;
  private final Events events;

  FrameHosts(DSLContext db, Clock clock, Events events) {
    this.db = db;
    this.clock = clock;
    this.events = events;
  }

  /** An approved host. */
  public record Approved(@NotNull String host, @NotNull String by, @NotNull OffsetDateTime at) {}

  public Frames approved() {
    return new Frames(db.select(FRAME_HOST.HOST).from(FRAME_HOST).fetchSet(FRAME_HOST.HOST));
  }

  List<Approved> list() {
    return db.select(FRAME_HOST.HOST, PERSON.NAME, FRAME_HOST.APPROVED_AT)
        .from(FRAME_HOST)
        .join(PERSON)
        .on(PERSON.ID.eq(FRAME_HOST.APPROVED_BY))
        .orderBy(FRAME_HOST.HOST)
        .fetch(r -> new Approved(r.value1(), r.value2(), r.value3()));
  }

  @Transactional
  void approve(String host, SignedIn who) {
    String h =
        HostName.of(host)
            .orElseThrow(
                () ->
                    Refusal.bad(
                        "“" + host + "” is not the name of a host.",
                        "Send a name such as film.example.org."));
    int added =
        db.insertInto(FRAME_HOST)
            .values(h, who.id(), OffsetDateTime.now(clock))
            .onConflictDoNothing()
            .execute();
    if (added > 0) {
      events.add(who.id(), "approved frames of", h, "");
    }
  }

  @Transactional
  void withdraw(String host, SignedIn who) {
    if (db.deleteFrom(FRAME_HOST).where(FRAME_HOST.HOST.eq(host)).execute() == 0) {
      throw Refusal.notFound("host");
    }
    events.add(who.id(), "no longer approves frames of", host, "");
  }
}
