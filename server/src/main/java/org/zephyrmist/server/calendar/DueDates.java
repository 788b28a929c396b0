package org.zephyrmist.server.calendar;

import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.SECTION;

import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.calendar.Deadlines;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.ledger.HeldDates;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;

/** Dates as shells have them, with what sections made of them. */
@Component
class DueDates {
  private final DSLContext db;
  private final Reach reach;
  private final Calendars calendars;
  private final HeldDates held;
  private final Bodies bodies;

  DueDates(DSLContext db, Reach reach, Calendars calendars, HeldDates held, Bodies bodies) {
    this.db = db;
    this.reach = reach;
    this.calendars = calendars;
    this.held = held;
    this.bodies = bodies;
  }

  /** An item with dates in a section. */
  record Held(
      String course,
      String code,
      UUID section,
      String item,
      String title,
      Kind kind,
      Timing timing,
      ZoneId zone) {}

  private record At(String course, String code) {}

  /** Whether a section of the term is within reach. */
  boolean reaches(UUID term, UUID section, SignedIn who) {
    return db.fetchExists(
        SECTION, SECTION.ID.eq(section).and(SECTION.TERM_ID.eq(term)).and(reach.sections(who)));
  }

  /** By course and section, in the order in which it is due. */
  List<Held> of(UUID term, String course, UUID section, SignedIn who) {
    Condition which = SECTION.TERM_ID.eq(term).and(reach.sections(who));
    if (course != null) {
      which = which.and(COURSE.CODE.eq(course));
    }
    if (section != null) {
      which = which.and(SECTION.ID.eq(section));
    }
    Map<UUID, At> at = new LinkedHashMap<>();
    db.select(SECTION.ID, COURSE.CODE, SECTION.CODE)
        .from(SECTION)
        .join(COURSE)
        .on(COURSE.ID.eq(SECTION.COURSE_ID))
        .where(which)
        .forEach(r -> at.put(r.value1(), new At(r.value2(), r.value3())));
    Map<UUID, Calendars.Goes> goes = calendars.sections(at.keySet());
    List<HeldDates.Here> here = held.here(at.keySet());
    Set<Fingerprint> prints = new HashSet<>();
    here.forEach(h -> prints.add(h.timing()));
    Map<Fingerprint, Timing> timings = new HashMap<>();
    bodies.get(prints).forEach((f, form) -> timings.put(f, AspectForms.timing(form)));
    List<Held> all = new ArrayList<>();
    for (HeldDates.Here h : here) {
      At s = at.get(h.section());
      all.add(
          new Held(
              s.course(),
              s.code(),
              h.section(),
              h.item().value(),
              h.title(),
              h.kind(),
              timings.get(h.timing()),
              goes.get(h.section()).days().days().calendar().zone()));
    }
    all.sort(
        Comparator.comparing(Held::course)
            .thenComparing(Held::code)
            .thenComparing(h -> h.timing().due().orElse(LocalDateTime.MAX))
            .thenComparing(Held::title));
    return all;
  }

  /** One deadline for all sections of a course that have it at the same time. */
  static List<Deadlines.Deadline> deadlines(List<Held> all) {
    Map<List<Object>, List<Held>> alike = new LinkedHashMap<>();
    for (Held h : all) {
      h.timing()
          .due()
          .ifPresent(
              due ->
                  alike
                      .computeIfAbsent(
                          List.of(h.course(), h.item(), due, h.zone()), k -> new ArrayList<>())
                      .add(h));
    }
    boolean one = all.stream().map(Held::section).distinct().count() == 1;
    return alike.values().stream()
        .map(
            of -> {
              Held h = of.get(0);
              String codes = String.join(", ", of.stream().map(Held::code).toList());
              return new Deadlines.Deadline(
                  h.item() + "-" + Fingerprint.of(codes).hex().substring(0, 12) + "@zephyrmist",
                  one ? h.title() : h.course() + ": " + h.title(),
                  codes,
                  h.timing().due().orElseThrow(),
                  h.zone());
            })
        .toList();
  }
}
