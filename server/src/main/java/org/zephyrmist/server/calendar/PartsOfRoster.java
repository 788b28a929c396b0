package org.zephyrmist.server.calendar;

import static org.zephyrmist.server.db.Tables.CALENDAR;
import static org.zephyrmist.server.db.Tables.TERM;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.calendar.Days;
import org.zephyrmist.core.calendar.Fit;
import org.zephyrmist.core.calendar.TermCalendar;
import org.zephyrmist.core.roster.Roster;
import org.zephyrmist.server.roster.TaughtInParts;

/**
 * Calendars of parts of terms from the grading periods of a roster. What people have entered stays:
 * a calendar of that name is not changed, nor a section taken from the one it goes by, or one of
 * which it is entered when it meets, since it might never meet in the part.
 */
@Component
class PartsOfRoster implements TaughtInParts {
  private final DSLContext db;
  private final Calendars calendars;
  private final CalendarRows rows;

  PartsOfRoster(DSLContext db, Calendars calendars, CalendarRows rows) {
    this.db = db;
    this.calendars = calendars;
    this.rows = rows;
  }

  @Override
  @Transactional(propagation = Propagation.MANDATORY)
  public void take(Map<String, Roster.Part> parts) {
    Map<Roster.Part, List<String>> sections = new HashMap<>();
    parts.forEach((s, p) -> sections.computeIfAbsent(p, k -> new ArrayList<>()).add(s));
    Map<String, UUID> terms = db.selectFrom(TERM).fetchMap(TERM.SOURCED_ID, TERM.ID);
    sections.forEach((part, of) -> go(of, calendar(part, terms.get(part.term()))));
  }

  private void go(List<String> sections, UUID calendar) {
    db.query(
            "insert into section_calendar select s.id, c.id from section s join calendar c on c.id ="
                + " ? and c.term_id = s.term_id where s.sourced_id = any(?::text[]) and not exists"
                + " (select 1 from section_meeting m where m.section_id = s.id) and not exists"
                + " (select 1 from section_calendar x join calendar o on o.id = x.calendar_id where"
                + " x.section_id = s.id and o.term_id = s.term_id) on conflict (section_id) do update"
                + " set calendar_id = excluded.calendar_id",
            calendar,
            sections.toArray(String[]::new))
        .execute();
  }

  private UUID calendar(Roster.Part part, UUID term) {
    return db.select(CALENDAR.ID)
        .from(CALENDAR)
        .where(CALENDAR.TERM_ID.eq(term))
        .and(CALENDAR.NAME.eq(part.title()))
        .fetchOptional(CALENDAR.ID)
        .orElseGet(() -> made(part, term));
  }

  /** As the whole term, from the first to the last day of the part. */
  private UUID made(Roster.Part part, UUID term) {
    TermCalendar whole = calendars.of(term).get(0).calendar();
    TermCalendar c = whole.within(new Days(part.firstDay(), part.lastDay()));
    UUID id = UUID.randomUUID();
    rows.put(new Calendars.Kept(id, term, part.title(), false, Fit.SHARE_SAME_WEEKDAY, c));
    return id;
  }
}
