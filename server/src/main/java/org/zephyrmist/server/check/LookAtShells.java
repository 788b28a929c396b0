package org.zephyrmist.server.check;

import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_CHECKED;
import static org.zephyrmist.server.db.Tables.SHELL_READING;
import static org.zephyrmist.server.db.Tables.TERM;

import java.time.Clock;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.check.Check;
import org.zephyrmist.core.check.CheckedShell;
import org.zephyrmist.core.check.ShellChecks;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;

/**
 * Looks at the shells of a term: those that were read since they were looked at, and all once a
 * day, because days pass and calendars change. Shells are not read for it.
 */
@Component
public class LookAtShells implements Job {
  public static final String NAME = "look-at-shells";
  private static final int AT_A_TIME = 60;
  private static final int DAYS_AFTER_TERM = 14;
  private final DSLContext db;
  private final CheckedShells shells;
  private final CheckChoices choices;
  private final Findings findings;
  private final Clock clock;

  LookAtShells(
      DSLContext db, CheckedShells shells, CheckChoices choices, Findings findings, Clock clock) {
    this.db = db;
    this.shells = shells;
    this.choices = choices;
    this.findings = findings;
    this.clock = clock;
  }

  @Override
  public String name() {
    return NAME;
  }

  private Condition due() {
    OffsetDateTime today = LocalDate.now(clock).atStartOfDay(clock.getZone()).toOffsetDateTime();
    return SECTION
        .IN_ROSTER
        .isTrue()
        .and(TERM.LAST_DAY.ge(LocalDate.now(clock).minusDays(DAYS_AFTER_TERM)))
        .and(
            SECTION_CHECKED
                .AT
                .isNull()
                .or(SECTION_CHECKED.AT.lt(SHELL_READING.READ_AT))
                .or(SECTION_CHECKED.AT.lt(today)));
  }

  @Override
  public Collection<UUID> strays() {
    return db.selectDistinct(SECTION.TERM_ID)
        .from(SHELL_READING)
        .join(SECTION)
        .on(SECTION.ID.eq(SHELL_READING.SECTION_ID))
        .join(TERM)
        .on(TERM.ID.eq(SECTION.TERM_ID))
        .leftJoin(SECTION_CHECKED)
        .on(SECTION_CHECKED.SECTION_ID.eq(SECTION.ID))
        .where(due())
        .fetch(SECTION.TERM_ID);
  }

  @Override
  public Outcome run(UUID term) {
    // what another server's clock calls the future is not looked at for ever
    Set<UUID> done = new HashSet<>();
    while (true) {
      List<UUID> some =
          db.select(SECTION.ID)
              .from(SHELL_READING)
              .join(SECTION)
              .on(SECTION.ID.eq(SHELL_READING.SECTION_ID))
              .join(TERM)
              .on(TERM.ID.eq(SECTION.TERM_ID))
              .leftJoin(SECTION_CHECKED)
              .on(SECTION_CHECKED.SECTION_ID.eq(SECTION.ID))
              .where(SECTION.TERM_ID.eq(term))
              .and(due())
              .orderBy(SECTION.ID)
              .limit(AT_A_TIME)
              .fetch(SECTION.ID);
      if (!done.addAll(some)) {
        return Outcome.ENDED;
      }
      look(some);
    }
  }

  /** Looks at these now, as they were read last; those that never were are left out. */
  public void look(List<UUID> sections) {
    Map<Check, CheckChoices.Choice> chosen = choices.all();
    for (int from = 0; from < sections.size(); from += AT_A_TIME) {
      List<UUID> some = sections.subList(from, Math.min(sections.size(), from + AT_A_TIME));
      OffsetDateTime at = OffsetDateTime.now(clock);
      Map<UUID, CheckedShell> all = shells.of(some);
      Findings.Look look = new Findings.Look(some, at);
      all.entrySet().parallelStream()
          .map(
              e -> Map.entry(e.getKey(), ShellChecks.of(e.getValue(), c -> chosen.get(c).looked())))
          .toList()
          .forEach(e -> look.add(e.getKey(), e.getValue()));
      findings.put(look, chosen);
    }
  }
}
