package org.zephyrmist.server.check;

import static org.zephyrmist.server.db.Tables.SHELL_OPENING;
import static org.zephyrmist.server.db.Tables.SHELL_READING;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.shell.OpenDays;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;
import org.zephyrmist.server.shell.Shell;
import org.zephyrmist.server.shell.Shells;
import org.zephyrmist.server.web.Refusal;

/**
 * Days on which students may enter shells, written into them in the background; a platform that
 * cannot be written to leaves it to a hand-over.
 */
@Component
public class Openings implements Job {
  public static final String NAME = "open-shell";
  private static final Logger LOG = LoggerFactory.getLogger(Openings.class);
  private static final java.time.Duration PAUSE = java.time.Duration.ofMinutes(1);
  private final DSLContext db;
  private final Shells shells;
  private final Events events;
  private final Clock clock;

  Openings(DSLContext db, Shells shells, Events events, Clock clock) {
    this.db = db;
    this.shells = shells;
    this.events = events;
    this.clock = clock;
  }

  /** Sections, which have to be within reach, open on these days; those without a shell cannot. */
  @Transactional
  public int ask(List<UUID> sections, OpenDays days, SignedIn who) {
    int n =
        db.query(
                "insert into shell_opening (section_id, opens, closes, person_id, asked_at) select"
                    + " id, ?::date, ?::date, ?::uuid, ?::timestamptz from section where id ="
                    + " any(?::uuid[]) and shell is not null on conflict (section_id) do update set"
                    + " opens = excluded.opens, closes = excluded.closes, person_id ="
                    + " excluded.person_id, asked_at = excluded.asked_at, written_at = null,"
                    + " problem = null",
                days.opens().orElse(null),
                days.closes().orElse(null),
                who.id(),
                OffsetDateTime.now(clock),
                sections.toArray(UUID[]::new))
            .execute();
    if (n < sections.size()) {
      throw Refusal.bad(
          (sections.size() - n) + " of these sections have no shell.", "Leave them out.");
    }
    String when =
        days.opens().map(d -> "from " + d).orElse("at once")
            + days.closes().map(d -> " until " + d).orElse("");
    events.add(who.id(), "had shells opened", n + " sections", when, "/checks");
    return n;
  }

  @Override
  public String name() {
    return NAME;
  }

  @Override
  public Collection<UUID> strays() {
    return db.select(SHELL_OPENING.SECTION_ID)
        .from(SHELL_OPENING)
        .where(SHELL_OPENING.WRITTEN_AT.isNull())
        .and(SHELL_OPENING.PROBLEM.isNull())
        .fetch(SHELL_OPENING.SECTION_ID);
  }

  @Override
  public Outcome run(UUID section) {
    var asked =
        db.selectFrom(SHELL_OPENING)
            .where(SHELL_OPENING.SECTION_ID.eq(section))
            .and(SHELL_OPENING.WRITTEN_AT.isNull())
            .and(SHELL_OPENING.PROBLEM.isNull())
            .fetchOptional();
    if (asked.isEmpty()) {
      return Outcome.ENDED;
    }
    OpenDays days =
        new OpenDays(
            Optional.ofNullable(asked.get().getOpens()),
            Optional.ofNullable(asked.get().getCloses()));
    Shell shell = shells.of(section);
    try {
      shells.gateway(shell).open(shell.there(), days);
    } catch (PlatformException e) {
      if (e.kind() != PlatformException.Kind.LASTING) {
        LOG.info("Shell of {} could not be opened yet: {}", section, e.getMessage());
        return Outcome.after(PAUSE);
      }
      db.update(SHELL_OPENING)
          .set(SHELL_OPENING.PROBLEM, e.getMessage())
          .where(SHELL_OPENING.SECTION_ID.eq(section))
          .and(SHELL_OPENING.ASKED_AT.eq(asked.get().getAskedAt()))
          .execute();
      return Outcome.ENDED;
    }
    written(section, asked.get().getAskedAt(), days);
    return Outcome.ENDED;
  }

  private void written(UUID section, OffsetDateTime asked, OpenDays days) {
    OffsetDateTime now = OffsetDateTime.now(clock);
    db.update(SHELL_OPENING)
        .set(SHELL_OPENING.WRITTEN_AT, now)
        .where(SHELL_OPENING.SECTION_ID.eq(section))
        .and(SHELL_OPENING.ASKED_AT.eq(asked))
        .execute();
    db.update(SHELL_READING)
        .set(SHELL_READING.OPEN_KNOWN, true)
        .set(SHELL_READING.OPENS, days.opens().orElse(null))
        .set(SHELL_READING.CLOSES, days.closes().orElse(null))
        .set(SHELL_READING.READ_AT, now)
        .where(SHELL_READING.SECTION_ID.eq(section))
        .execute();
  }
}
