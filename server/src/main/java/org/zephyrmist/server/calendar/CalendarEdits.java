package org.zephyrmist.server.calendar;

import static org.zephyrmist.server.db.Tables.CALENDAR;
import static org.zephyrmist.server.db.Tables.MEETING_CANCELLED;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_CALENDAR;
import static org.zephyrmist.server.db.Tables.SECTION_MEETING;
import static org.zephyrmist.server.db.Tables.TERM;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.Record1;
import org.jooq.SelectConditionStep;
import org.jooq.impl.DSL;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.calendar.CalendarException;
import org.zephyrmist.core.calendar.CountedDays;
import org.zephyrmist.core.calendar.Days;
import org.zephyrmist.core.calendar.Meetings;
import org.zephyrmist.core.calendar.TermCalendar;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Changes to calendars, to which sections go by them, and to when sections meet. */
@Component
public class CalendarEdits {
  private final DSLContext db;
  private final Calendars calendars;
  private final CalendarRows rows;
  private final Reach reach;
  private final Events events;

  CalendarEdits(DSLContext db, Calendars calendars, CalendarRows rows, Reach reach, Events events) {
    this.rows = rows;
    this.db = db;
    this.calendars = calendars;
    this.reach = reach;
    this.events = events;
  }

  /** Makes a calendar of a part of a term. */
  @Transactional
  public UUID add(UUID term, CalendarEntry e, SignedIn who) {
    UUID id = UUID.randomUUID();
    put(id, term, false, e, who);
    return id;
  }

  /**
   * Changes a calendar.
   *
   * @param id that of its term, of the calendar of the whole term
   */
  @Transactional
  public void change(UUID id, CalendarEntry e, SignedIn who) {
    Calendars.Kept before = kept(id);
    ours(before, who);
    put(before.id(), before.term(), before.whole(), e, who);
  }

  /** A calendar by its id, or the one of the whole term by the term's. */
  Calendars.Kept kept(UUID id) {
    UUID term =
        db.select(CALENDAR.TERM_ID)
            .from(CALENDAR)
            .where(CALENDAR.ID.eq(id))
            .fetchOptional(CALENDAR.TERM_ID)
            .orElse(id);
    return calendars.of(term).stream()
        .filter(k -> k.id().equals(id) || k.whole() && term.equals(id))
        .findFirst()
        .orElseThrow(() -> Refusal.notFound("calendar"));
  }

  private void put(UUID id, UUID term, boolean whole, CalendarEntry e, SignedIn who) {
    String title =
        db.select(TERM.TITLE)
            .from(TERM)
            .where(TERM.ID.eq(term))
            .forUpdate()
            .fetchOptional(TERM.TITLE)
            .orElseThrow(() -> Refusal.notFound("term"));
    TermCalendar c = e.calendar();
    try {
      rows.put(new Calendars.Kept(id, term, e.name().strip(), whole, e.fit(), c));
    } catch (DuplicateKeyException twice) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "This term has a calendar called “" + e.name().strip() + "” already.",
          "Give this one another name.");
    }
    everySectionMeets(id, whole, c, term);
    events.add(who.id(), "changed the calendar of", title, e.name().strip(), "/calendar");
  }

  /** Nobody beyond one's reach goes by it. */
  private void ours(Calendars.Kept k, SignedIn who) {
    if (db.fetchExists(goBy(k.id(), k.whole(), k.term()).andNot(reach.sections(who)))) {
      throw new Refusal(
          HttpStatus.FORBIDDEN,
          "Sections beyond your programs go by “" + k.name() + "” too.",
          "Make a calendar for yours, or ask who reaches them all.");
    }
  }

  private SelectConditionStep<Record1<UUID>> goBy(UUID id, boolean whole, UUID term) {
    return db.select(SECTION.ID)
        .from(SECTION)
        .leftJoin(SECTION_CALENDAR)
        .on(SECTION_CALENDAR.SECTION_ID.eq(SECTION.ID))
        .where(SECTION.TERM_ID.eq(term))
        .and(whole ? SECTION_CALENDAR.CALENDAR_ID.isNull() : SECTION_CALENDAR.CALENDAR_ID.eq(id));
  }

  /** A section that meets has to meet at all. */
  private void everySectionMeets(UUID id, boolean whole, TermCalendar c, UUID term) {
    UUID[] sections = goBy(id, whole, term).fetchArray(SECTION.ID);
    calendars.meetings(sections).values().stream().distinct().forEach(m -> meets(c, m));
  }

  private static void meets(TermCalendar c, Meetings m) {
    try {
      new CountedDays(c, m);
    } catch (CalendarException e) {
      throw CalendarEntry.refused(e);
    }
  }

  /** Takes away the calendar of a part; its sections go by the whole term again. */
  @Transactional
  public void end(UUID id, SignedIn who) {
    Calendars.Kept k = kept(id);
    ours(k, who);
    if (k.whole()) {
      throw Refusal.bad(
          "A term has a calendar of its whole.", "Change it, or take away one of a part.");
    }
    db.deleteFrom(CALENDAR).where(CALENDAR.ID.eq(id)).execute();
    events.add(who.id(), "took away the calendar", k.name(), "", "/calendar");
  }

  /** These sections, which have to be of its term and within reach, go by a calendar. */
  @Transactional
  public void go(UUID id, List<UUID> sections, SignedIn who) {
    Calendars.Kept k = kept(id);
    UUID[] ids = sections.stream().distinct().toArray(UUID[]::new);
    reached(ids, who);
    int of = db.fetchCount(SECTION, SECTION.ID.eq(DSL.any(ids)).and(SECTION.TERM_ID.eq(k.term())));
    if (of < ids.length) {
      throw Refusal.bad(
          ids.length - of + " of these sections are not of the term of this calendar.",
          "Choose sections of its term.");
    }
    db.deleteFrom(SECTION_CALENDAR).where(SECTION_CALENDAR.SECTION_ID.eq(DSL.any(ids))).execute();
    if (!k.whole()) {
      db.query(
              "insert into section_calendar select distinct s, ?::uuid from unnest(?::uuid[]) s",
              k.id(),
              ids)
          .execute();
    }
    calendars.meetings(ids).values().stream().distinct().forEach(m -> meets(k.calendar(), m));
    events.add(who.id(), "chose sections for the calendar", k.name(), of + "", "/calendar");
  }

  /** These sections, which have to be within reach, meet so from now on. */
  @Transactional
  public void meet(List<UUID> sections, Meetings m, SignedIn who) {
    UUID[] ids = sections.stream().distinct().toArray(UUID[]::new);
    reached(ids, who);
    db.deleteFrom(SECTION_MEETING).where(SECTION_MEETING.SECTION_ID.eq(DSL.any(ids))).execute();
    db.deleteFrom(MEETING_CANCELLED).where(MEETING_CANCELLED.SECTION_ID.eq(DSL.any(ids))).execute();
    if (m.weekly().stream().map(w -> w.day() + " " + w.begins()).distinct().count()
        < m.weekly().size()) {
      throw Refusal.bad(
          "Two meetings begin at the same time of the same day.", "Take one of them out.");
    }
    for (Meetings.Weekly w : m.weekly()) {
      db.query(
              "insert into section_meeting select s, ?, ?::time, ?::time from unnest(?::uuid[]) s",
              w.day().getValue(),
              w.begins(),
              w.ends(),
              ids)
          .execute();
    }
    db.query(
            "insert into meeting_cancelled select s, d from unnest(?::uuid[]) s,"
                + " unnest(?::date[]) d",
            ids,
            m.cancelled().toArray(LocalDate[]::new))
        .execute();
    try {
      calendars.sections(sections);
    } catch (CalendarException e) {
      throw CalendarEntry.refused(e);
    }
    events.add(
        who.id(), "said when sections meet", ids.length + " sections", words(m), "/calendar");
  }

  private void reached(UUID[] sections, SignedIn who) {
    int of = db.fetchCount(SECTION, SECTION.ID.eq(DSL.any(sections)).and(reach.sections(who)));
    if (of < sections.length) {
      throw Refusal.notFound("section");
    }
  }

  private static String words(Meetings m) {
    return m.weekly().stream()
        .map(w -> name(w.day()) + " " + w.begins())
        .collect(java.util.stream.Collectors.joining(", "));
  }

  private static String name(DayOfWeek d) {
    return d.getDisplayName(java.time.format.TextStyle.SHORT, java.util.Locale.ENGLISH);
  }

  /** How many sections go by each calendar of a term, by its id; within reach. */
  Map<UUID, Integer> sections(UUID term, SignedIn who) {
    List<UUID> all =
        db.select(SECTION.ID)
            .from(SECTION)
            .where(SECTION.TERM_ID.eq(term))
            .and(reach.sections(who))
            .fetch(SECTION.ID);
    Map<UUID, Integer> count = new java.util.HashMap<>();
    calendars.sections(all).values().forEach(g -> count.merge(g.calendar(), 1, Integer::sum));
    return count;
  }

  /** Days about which a file is asked: of the term, from its first day to the end of finals. */
  Days within(UUID id) {
    TermCalendar c = kept(id).calendar();
    return new Days(c.teaching().first(), c.end());
  }
}
