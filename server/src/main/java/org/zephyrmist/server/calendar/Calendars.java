package org.zephyrmist.server.calendar;

import static org.zephyrmist.server.db.Tables.CALENDAR;
import static org.zephyrmist.server.db.Tables.DAY_OFF;
import static org.zephyrmist.server.db.Tables.MEETING_CANCELLED;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_CALENDAR;
import static org.zephyrmist.server.db.Tables.SECTION_MEETING;
import static org.zephyrmist.server.db.Tables.TERM;

import java.time.Clock;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.calendar.CountedDays;
import org.zephyrmist.core.calendar.Days;
import org.zephyrmist.core.calendar.DaysOff;
import org.zephyrmist.core.calendar.Fit;
import org.zephyrmist.core.calendar.Fitted;
import org.zephyrmist.core.calendar.Meetings;
import org.zephyrmist.core.calendar.TermCalendar;
import org.zephyrmist.core.calendar.TermDays;
import org.zephyrmist.server.db.tables.records.CalendarRecord;

/** Calendars of terms, and by which of them sections go. */
@Component
public class Calendars {
  private final DSLContext db;
  private final Clock clock;

  Calendars(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /**
   * A calendar.
   *
   * @param id that of its term, of a term of which nobody has said more than the roster has
   * @param whole whether it is that of the whole term
   */
  public record Kept(
      UUID id, UUID term, String name, boolean whole, Fit fit, TermCalendar calendar) {}

  /** Those of a term, the one of the whole first. */
  public List<Kept> of(UUID term) {
    return of(Set.of(term)).getOrDefault(term, List.of());
  }

  private Map<UUID, List<Kept>> of(Collection<UUID> terms) {
    Map<UUID, List<DaysOff>> off = new HashMap<>();
    db.select(DAY_OFF.fields())
        .from(DAY_OFF)
        .join(CALENDAR)
        .on(CALENDAR.ID.eq(DAY_OFF.CALENDAR_ID))
        .where(CALENDAR.TERM_ID.in(terms))
        .forEach(
            r ->
                off.computeIfAbsent(r.get(DAY_OFF.CALENDAR_ID), k -> new ArrayList<>())
                    .add(
                        new DaysOff(
                            r.get(DAY_OFF.NAME),
                            new Days(r.get(DAY_OFF.FIRST_DAY), r.get(DAY_OFF.LAST_DAY)))));
    Map<UUID, List<Kept>> all = new HashMap<>();
    db.selectFrom(CALENDAR)
        .where(CALENDAR.TERM_ID.in(terms))
        .orderBy(CALENDAR.WHOLE.desc(), CALENDAR.FIRST_DAY, CALENDAR.NAME)
        .forEach(
            r ->
                all.computeIfAbsent(r.getTermId(), k -> new ArrayList<>())
                    .add(kept(r, off.getOrDefault(r.getId(), List.of()))));
    db.selectFrom(TERM)
        .where(TERM.ID.in(terms))
        .forEach(
            t -> {
              List<Kept> of = all.computeIfAbsent(t.getId(), k -> new ArrayList<>());
              if (of.stream().noneMatch(Kept::whole)) {
                of.add(0, plain(t.getId(), t.getFirstDay(), t.getLastDay()));
              }
            });
    return all;
  }

  private Kept plain(UUID term, LocalDate first, LocalDate last) {
    TermCalendar c = TermCalendar.plain(first, last, clock.getZone());
    return new Kept(term, term, "Whole term", true, Fit.AS_SAID, c);
  }

  private static Kept kept(CalendarRecord r, List<DaysOff> off) {
    Optional<Days> finals =
        Optional.ofNullable(r.getFinalsFirst()).map(f -> new Days(f, r.getFinalsLast()));
    return new Kept(
        r.getId(),
        r.getTermId(),
        r.getName(),
        r.getWhole(),
        r.getFit(),
        new TermCalendar(
            new Days(r.getFirstDay(), r.getLastDay()),
            off,
            finals,
            ZoneId.of(r.getZone()),
            r.getWeeks(),
            Arrays.stream(r.getWeekdays()).map(DayOfWeek::of).collect(Collectors.toSet())));
  }

  /**
   * By what a section goes.
   *
   * @param calendar its id, see {@link Kept}
   */
  public record Goes(UUID calendar, Meetings meetings, TermDays days) {}

  /** By what sections go; those that are in no term are left out. What is alike is one object. */
  public Map<UUID, Goes> sections(Collection<UUID> sections) {
    Map<UUID, UUID> terms = new HashMap<>();
    Map<UUID, UUID> parts = new HashMap<>();
    UUID[] ids = sections.toArray(UUID[]::new);
    db.select(SECTION.ID, SECTION.TERM_ID, SECTION_CALENDAR.CALENDAR_ID)
        .from(SECTION)
        .leftJoin(SECTION_CALENDAR)
        .on(SECTION_CALENDAR.SECTION_ID.eq(SECTION.ID))
        .where(SECTION.ID.eq(DSL.any(ids)))
        .and(SECTION.TERM_ID.isNotNull())
        .forEach(
            r -> {
              terms.put(r.value1(), r.value2());
              if (r.value3() != null) {
                parts.put(r.value1(), r.value3());
              }
            });
    Map<UUID, List<Kept>> calendars = of(new HashSet<>(terms.values()));
    Map<UUID, Meetings> meetings = meetings(ids);
    Map<Alike, Goes> alike = new HashMap<>();
    Map<UUID, Goes> all = new HashMap<>();
    terms.forEach(
        (section, term) -> {
          List<Kept> of = calendars.get(term);
          Kept whole = of.get(0);
          Kept mine =
              of.stream()
                  .filter(k -> k.id().equals(parts.get(section)))
                  .findFirst()
                  .orElse(whole); // a part of another term does not count any more
          Meetings m = meetings.getOrDefault(section, Meetings.NONE);
          all.put(
              section, alike.computeIfAbsent(new Alike(mine.id(), m), a -> goes(whole, mine, m)));
        });
    return all;
  }

  private record Alike(UUID calendar, Meetings meetings) {}

  /** By what a section of a term goes whose calendar this is. */
  static Goes goes(Kept whole, Kept mine, Meetings meetings) {
    CountedDays days = new CountedDays(mine.calendar(), meetings);
    Optional<Fitted> fitted =
        mine.whole() || mine.fit() == Fit.AS_SAID
            ? Optional.empty()
            : Optional.of(new Fitted(new CountedDays(whole.calendar()), days, mine.fit()));
    return new Goes(mine.id(), meetings, new TermDays(days, fitted));
  }

  Map<UUID, Meetings> meetings(UUID[] sections) {
    Map<UUID, List<Meetings.Weekly>> weekly = new HashMap<>();
    db.selectFrom(SECTION_MEETING)
        .where(SECTION_MEETING.SECTION_ID.eq(DSL.any(sections)))
        .orderBy(SECTION_MEETING.WEEKDAY, SECTION_MEETING.BEGINS)
        .forEach(
            r ->
                weekly
                    .computeIfAbsent(r.getSectionId(), k -> new ArrayList<>())
                    .add(
                        new Meetings.Weekly(
                            DayOfWeek.of(r.getWeekday()), r.getBegins(), r.getEnds())));
    Map<UUID, Set<LocalDate>> cancelled = new HashMap<>();
    db.selectFrom(MEETING_CANCELLED)
        .where(MEETING_CANCELLED.SECTION_ID.eq(DSL.any(sections)))
        .forEach(
            r -> cancelled.computeIfAbsent(r.getSectionId(), k -> new HashSet<>()).add(r.getDay()));
    Map<UUID, Meetings> all = new HashMap<>();
    weekly.forEach((s, w) -> all.put(s, new Meetings(w, cancelled.getOrDefault(s, Set.of()))));
    return all;
  }
}
