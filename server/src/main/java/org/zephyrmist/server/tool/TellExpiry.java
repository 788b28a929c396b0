package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.TOOL_CONNECTION;

import java.time.Clock;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.tool.Expiry;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.mail.Mails;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;

/** Writes to administrators before the credentials of a connection end. */
@Component
class TellExpiry implements Job {
  private final DSLContext db;
  private final Mails mails;
  private final Settings settings;
  private final Clock clock;

  TellExpiry(DSLContext db, Mails mails, Settings settings, Clock clock) {
    this.db = db;
    this.mails = mails;
    this.settings = settings;
    this.clock = clock;
  }

  @Override
  public String name() {
    return "tell-expiry";
  }

  @Override
  public Collection<UUID> strays() {
    LocalDate today = LocalDate.now(clock);
    return db
        .select(TOOL_CONNECTION.ID, TOOL_CONNECTION.EXPIRES_ON, TOOL_CONNECTION.TOLD_DAYS)
        .from(TOOL_CONNECTION)
        .where(TOOL_CONNECTION.EXPIRES_ON.between(today, today.plusDays(Expiry.LONGEST)))
        .fetch()
        .stream()
        .filter(r -> due(r.value2(), r.value3(), today).isPresent())
        .map(r -> r.value1())
        .toList();
  }

  /** A secret that no tool takes any more is not kept. */
  @Override
  public void sweep() {
    db.update(TOOL_CONNECTION)
        .setNull(TOOL_CONNECTION.KEY_BEFORE)
        .setNull(TOOL_CONNECTION.SECRET_BEFORE)
        .where(TOOL_CONNECTION.BOTH_UNTIL.lt(LocalDate.now(clock)))
        .and(TOOL_CONNECTION.SECRET_BEFORE.isNotNull())
        .execute();
  }

  /** Not what was told already. */
  private static Optional<Integer> due(LocalDate ends, Integer told, LocalDate today) {
    return Expiry.due(ends, today).filter(d -> told == null || d < told);
  }

  @Override
  @Transactional
  public Outcome run(UUID id) {
    LocalDate today = LocalDate.now(clock);
    var c = db.selectFrom(TOOL_CONNECTION).where(TOOL_CONNECTION.ID.eq(id)).forUpdate().fetchOne();
    Optional<Integer> due =
        c == null || c.getExpiresOn() == null
            ? Optional.empty()
            : due(c.getExpiresOn(), c.getToldDays(), today);
    if (due.isEmpty()) {
      return Outcome.ENDED;
    }
    c.setToldDays(due.get());
    c.update();
    List<UUID> administrators =
        db.select(PERSON.ID)
            .from(PERSON)
            .where(PERSON.ROLE.eq(Role.ADMINISTRATOR))
            .fetch(PERSON.ID);
    mails.put(
        "expiry " + id + " " + c.getExpiresOn() + " " + due.get(),
        administrators,
        "The credentials of " + c.getName() + " end on " + c.getExpiresOn(),
        "From then on the links of "
            + c.getName()
            + " may no longer work. Have new ones made by its maker, then enter them here; they are"
            + " written wherever the old ones stand.\n\n"
            + settings.address()
            + "/tools?enter="
            + id);
    return Outcome.ENDED;
  }
}
