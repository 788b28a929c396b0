package org.zephyrmist.server.term;

import static org.zephyrmist.server.db.Tables.CALENDAR;
import static org.zephyrmist.server.db.Tables.SECTION_CALENDAR;

import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.calendar.CalendarEdits;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.term.NextTerms.Terms;

/**
 * Calendars of parts of a term: who follows a section of the second half is in the second half, if
 * the next term has a calendar that is called so.
 */
@Component
class PartCalendars {
  private final DSLContext db;
  private final CalendarEdits edits;

  PartCalendars(DSLContext db, CalendarEdits edits) {
    this.db = db;
    this.edits = edits;
  }

  /**
   * A part of the earlier term.
   *
   * @param next the calendar of the same name in the next term
   * @param sections of the next term that follow its sections and go by no calendar of a part yet
   */
  record Part(String name, Optional<UUID> next, Set<UUID> sections) {}

  /** Whether somebody has entered a calendar of the term. */
  boolean entered(UUID term) {
    return db.fetchExists(CALENDAR, CALENDAR.TERM_ID.eq(term).and(CALENDAR.WHOLE));
  }

  /**
   * By name.
   *
   * @param follows which section each of the next term follows
   */
  List<Part> of(Terms t, Map<UUID, UUID> follows) {
    Map<String, UUID> next =
        db.select(CALENDAR.NAME, CALENDAR.ID)
            .from(CALENDAR)
            .where(CALENDAR.TERM_ID.eq(t.to()))
            .andNot(CALENDAR.WHOLE)
            .fetchMap(CALENDAR.NAME, CALENDAR.ID);
    Map<UUID, String> before = parts(t.from(), follows.values());
    Set<UUID> placed = parts(t.to(), follows.keySet()).keySet();
    Map<String, Part> all = new LinkedHashMap<>();
    new TreeSet<>(before.values())
        .forEach(n -> all.put(n, new Part(n, Optional.ofNullable(next.get(n)), new TreeSet<>())));
    follows.forEach(
        (b, a) -> {
          if (before.containsKey(a) && !placed.contains(b)) {
            all.get(before.get(a)).sections().add(b);
          }
        });
    return all.values().stream().filter(p -> !p.sections().isEmpty()).toList();
  }

  private Map<UUID, String> parts(UUID term, Collection<UUID> sections) {
    Map<UUID, String> all = new HashMap<>();
    db.select(SECTION_CALENDAR.SECTION_ID, CALENDAR.NAME)
        .from(SECTION_CALENDAR)
        .join(CALENDAR)
        .on(CALENDAR.ID.eq(SECTION_CALENDAR.CALENDAR_ID))
        .where(SECTION_CALENDAR.SECTION_ID.in(sections))
        .and(CALENDAR.TERM_ID.eq(term))
        .andNot(CALENDAR.WHOLE)
        .forEach(r -> all.put(r.value1(), r.value2()));
    return all;
  }

  /** Lets sections go by the calendars of their parts. */
  void go(List<Part> parts, SignedIn who) {
    for (Part p : parts) {
      p.next().ifPresent(c -> edits.go(c, List.copyOf(p.sections()), who));
    }
  }
}
