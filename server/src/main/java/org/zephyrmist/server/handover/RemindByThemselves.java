package org.zephyrmist.server.handover;

import static org.zephyrmist.server.db.Tables.DAILY_ROUND;
import static org.zephyrmist.server.db.Tables.HAND_OVER;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TERM;

import java.time.Clock;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.handover.HandOverKind;
import org.zephyrmist.core.handover.Reminders;
import org.zephyrmist.server.handover.HandOvers.HandOver;
import org.zephyrmist.server.mail.Mails;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;

/** Once a day reminds of hand-overs whose day has come, and of which somebody has begun to. */
@Component
class RemindByThemselves implements Job {
  private static final String NAME = "remind-hand-overs";
  private static final UUID ONE = new UUID(0, 1);
  private final DSLContext db;
  private final HandOvers handOvers;
  private final Reminding reminding;
  private final Mails mails;
  private final Clock clock;

  RemindByThemselves(
      DSLContext db, HandOvers handOvers, Reminding reminding, Mails mails, Clock clock) {
    this.db = db;
    this.handOvers = handOvers;
    this.reminding = reminding;
    this.mails = mails;
    this.clock = clock;
  }

  @Override
  public String name() {
    return NAME;
  }

  @Override
  public Collection<UUID> strays() {
    boolean went =
        db.fetchExists(
            DAILY_ROUND,
            DAILY_ROUND.NAME.eq(NAME).and(DAILY_ROUND.WENT_ON.eq(LocalDate.now(clock))));
    return went || !mails.on() ? List.of() : List.of(ONE);
  }

  /** Hand-overs of one kind and host. */
  private record Sort(HandOverKind kind, String host) {}

  @Override
  @Transactional
  public Outcome run(UUID one) {
    LocalDate today = LocalDate.now(clock);
    db.update(DAILY_ROUND)
        .set(DAILY_ROUND.WENT_ON, today)
        .where(DAILY_ROUND.NAME.eq(NAME))
        .execute();
    Map<Sort, List<HandOver>> sorts = new LinkedHashMap<>();
    handOvers.of(followed(today)).stream()
        .filter(h -> Reminders.due(h.due(), reminded(h), today))
        .forEach(
            h ->
                sorts.computeIfAbsent(new Sort(h.kind(), h.host()), s -> new ArrayList<>()).add(h));
    sorts.forEach((s, its) -> reminding.of(s.kind(), s.host(), its, Optional.empty()));
    return Outcome.ENDED;
  }

  /** Sections of which somebody set a day or reminded, while their term is not over. */
  private static Condition followed(LocalDate today) {
    return SECTION
        .ID
        .in(
            DSL.select(HAND_OVER.SECTION_ID)
                .from(HAND_OVER)
                .where(HAND_OVER.DUE.isNotNull().or(HAND_OVER.REMINDED_AT.isNotNull())))
        .and(TERM.LAST_DAY.isNull().or(TERM.LAST_DAY.ge(today)));
  }

  private static Optional<LocalDate> reminded(HandOver h) {
    return h.added().reminded().map(OffsetDateTime::toLocalDate);
  }
}
