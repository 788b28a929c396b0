package org.zephyrmist.server.demo;

import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TERM;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.calendar.Fit;
import org.zephyrmist.core.calendar.Meetings;
import org.zephyrmist.core.calendar.WeekCount;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.TimingPattern;
import org.zephyrmist.core.content.When;
import org.zephyrmist.server.calendar.CalendarEdits;
import org.zephyrmist.server.calendar.CalendarEntry;
import org.zephyrmist.server.calendar.CalendarEntry.OffDay;
import org.zephyrmist.server.people.People;
import org.zephyrmist.server.people.SignedIn;

/** Both terms of the demo college: days off, a break, finals, a second half, and evenings. */
@Component
@ConditionalOnProperty(name = "zephyrmist.demo", havingValue = "true")
class DemoCalendars {
  private static final Set<Integer> WEEKDAYS = Set.of(1, 2, 3, 4, 5);
  private final DSLContext db;
  private final CalendarEdits calendars;
  private final DemoDrafts drafts;
  private final People people;

  DemoCalendars(DSLContext db, CalendarEdits calendars, DemoDrafts drafts, People people) {
    this.db = db;
    this.calendars = calendars;
    this.drafts = drafts;
    this.people = people;
  }

  private SignedIn ines() {
    return people.loadUserByUsername("ines@larkmoor.example");
  }

  void make() {
    for (String term : List.of("t1", "t2")) {
      var t = db.selectFrom(TERM).where(TERM.SOURCED_ID.eq(term)).fetchSingle();
      LocalDate first = t.getFirstDay();
      LocalDate last = t.getLastDay();
      List<OffDay> off = new ArrayList<>();
      off.add(
          new OffDay(
              "Founders' Day", day(first, 5, DayOfWeek.MONDAY), day(first, 5, DayOfWeek.MONDAY)));
      off.add(
          term.equals("t1")
              ? new OffDay(
                  "Harvest break",
                  day(first, 11, DayOfWeek.WEDNESDAY),
                  day(first, 11, DayOfWeek.FRIDAY))
              : new OffDay(
                  "Spring break",
                  day(first, 8, DayOfWeek.MONDAY),
                  day(first, 8, DayOfWeek.FRIDAY)));
      calendars.change(t.getId(), entry("Whole term", first, last, Fit.AS_SAID, off), ines());
      LocalDate half = day(first, 9, DayOfWeek.MONDAY);
      UUID part =
          calendars.add(
              t.getId(),
              entry(
                  "Second half",
                  half,
                  last,
                  Fit.SHARE_SAME_WEEKDAY,
                  off.stream().filter(o -> !o.first().isBefore(half)).toList()),
              ines());
      List<UUID> late = sections(t.getId(), "LGT 110");
      calendars.go(
          part, late.subList(late.size() - Math.min(6, late.size() / 2), late.size()), ines());
      calendars.meet(
          sections(t.getId(), "STM 210"), weekly("18:30", "21:15", DayOfWeek.WEDNESDAY), ines());
      calendars.meet(
          sections(t.getId(), "SND 120"),
          weekly("09:00", "10:15", DayOfWeek.TUESDAY, DayOfWeek.THURSDAY),
          ines());
    }
  }

  private static CalendarEntry entry(
      String name, LocalDate first, LocalDate last, Fit fit, List<OffDay> off) {
    LocalDate finals = last.with(java.time.temporal.TemporalAdjusters.next(DayOfWeek.MONDAY));
    return new CalendarEntry(
        name,
        first,
        last,
        finals,
        finals.plusDays(4),
        "America/Chicago",
        WeekCount.CALENDAR,
        WEEKDAYS,
        fit,
        off);
  }

  private static LocalDate day(LocalDate first, int week, DayOfWeek day) {
    return first.plusWeeks(week - 1L).plusDays(day.getValue() - 1L);
  }

  private static Meetings weekly(String begins, String ends, DayOfWeek... days) {
    List<Meetings.Weekly> all = new ArrayList<>();
    for (DayOfWeek d : days) {
      all.add(new Meetings.Weekly(d, LocalTime.parse(begins), LocalTime.parse(ends)));
    }
    return new Meetings(all, Set.of());
  }

  private List<UUID> sections(UUID term, String course) {
    return db.select(SECTION.ID)
        .from(SECTION)
        .join(COURSE)
        .on(COURSE.ID.eq(SECTION.COURSE_ID))
        .where(SECTION.TERM_ID.eq(term))
        .and(COURSE.CODE.eq(course))
        .orderBy(SECTION.CODE)
        .fetch(SECTION.ID);
  }

  /** Talks, exercises and quizzes of a course, over the fifteen weeks of a term. */
  void patterns(UUID master, DemoCourse c) {
    boolean evenings = c.code().equals("STM 210");
    drafts.rewrite(master, "said when work is due", a -> dated(c, a, evenings));
  }

  private static Aspects dated(DemoCourse c, Aspects a, boolean evenings) {
    String title = a.wording().title();
    for (int w = 0; w < c.weeks().size(); w++) {
      String topic = c.weeks().get(w).title().toLowerCase(Locale.ROOT);
      if (title.toLowerCase(Locale.ROOT).endsWith(": " + topic)) {
        int week = 1 + w * 3 / 2;
        String due =
            title.startsWith("Talk")
                ? "week " + week + " Wed 23:59"
                : title.startsWith("Exercise")
                    ? evenings ? "meeting " + (week + 1) : exercise(week)
                    : title.startsWith("Quiz") ? "week " + week + " Sun 18:00" : "";
        return When.of(due, Point.DUE)
            .map(
                x ->
                    a.with(
                        a.timing()
                            .with(TimingPattern.NONE.with(Point.DUE, java.util.Optional.of(x)))))
            .orElse(a);
      }
    }
    return a;
  }

  private static String exercise(int week) {
    return week == 5 ? "week 5 Mon 23:59" : "week " + week + " Fri 23:59";
  }
}
