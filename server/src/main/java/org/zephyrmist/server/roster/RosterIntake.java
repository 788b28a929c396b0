package org.zephyrmist.server.roster;

import static org.jooq.impl.DSL.excluded;
import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.PROGRAM;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;
import static org.zephyrmist.server.db.Tables.TERM;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.Query;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.roster.Roster;
import org.zephyrmist.core.roster.Roster.Remark;

/** Brings a roster in. Taken in again, nothing doubles; what vanished is kept and marked. */
@Component
public class RosterIntake {
  private final DSLContext db;

  RosterIntake(DSLContext db) {
    this.db = db;
  }

  /**
   * @param vanished sections that an earlier roster had and this one has not
   */
  public record Report(
      int campuses,
      int terms,
      int courses,
      int sections,
      int instructors,
      int vanished,
      List<Remark> remarks) {}

  @Transactional
  public Report take(Roster r) {
    List<Remark> remarks = new ArrayList<>(r.remarks());
    List<Query> q = new ArrayList<>();
    for (Roster.Org o : r.orgs()) {
      if (o.type().equalsIgnoreCase("department")) {
        q.add(
            db.insertInto(PROGRAM)
                .values(UUID.randomUUID(), o.id(), o.name())
                .onConflict(PROGRAM.SOURCED_ID)
                .doUpdate()
                .set(PROGRAM.NAME, excluded(PROGRAM.NAME)));
      } else {
        q.add(
            db.insertInto(CAMPUS)
                .values(UUID.randomUUID(), o.id(), o.name())
                .onConflict(CAMPUS.SOURCED_ID)
                .doUpdate()
                .set(CAMPUS.NAME, excluded(CAMPUS.NAME)));
      }
    }
    for (Roster.Term t : r.terms()) {
      q.add(
          db.insertInto(TERM)
              .values(UUID.randomUUID(), t.id(), t.title(), t.firstDay(), t.lastDay())
              .onConflict(TERM.SOURCED_ID)
              .doUpdate()
              .set(TERM.TITLE, excluded(TERM.TITLE))
              .set(TERM.FIRST_DAY, excluded(TERM.FIRST_DAY))
              .set(TERM.LAST_DAY, excluded(TERM.LAST_DAY)));
    }
    db.batch(q).execute();
    courses(r, remarks);
    int vanished = sections(r);
    int instructors = people(r);
    return new Report(
        db.fetchCount(CAMPUS),
        r.terms().size(),
        r.courses().size(),
        r.sections().size(),
        instructors,
        vanished,
        remarks);
  }

  private void courses(Roster r, List<Remark> remarks) {
    Map<String, UUID> programs = db.selectFrom(PROGRAM).fetchMap(PROGRAM.SOURCED_ID, PROGRAM.ID);
    List<Query> q = new ArrayList<>();
    for (Roster.Course c : r.courses()) {
      UUID program = programs.get(c.org());
      if (program == null) {
        program =
            programs.computeIfAbsent(
                "college",
                k -> {
                  UUID id = UUID.randomUUID();
                  db.insertInto(PROGRAM)
                      .values(id, "college", "Whole college")
                      .onConflictDoNothing()
                      .execute();
                  return id;
                });
        remarks.add(
            new Remark(
                "courses.csv",
                0,
                "Course " + c.code() + " names no department.",
                "It was put under “Whole college”."));
      }
      q.add(
          db.insertInto(COURSE)
              .values(UUID.randomUUID(), c.id(), c.code(), c.title(), program)
              .onConflict(COURSE.SOURCED_ID)
              .doUpdate()
              .set(COURSE.CODE, excluded(COURSE.CODE))
              .set(COURSE.TITLE, excluded(COURSE.TITLE))
              .set(COURSE.PROGRAM_ID, excluded(COURSE.PROGRAM_ID)));
    }
    db.batch(q).execute();
  }

  private int sections(Roster r) {
    Map<String, UUID> courses = db.selectFrom(COURSE).fetchMap(COURSE.SOURCED_ID, COURSE.ID);
    Map<String, UUID> campuses = db.selectFrom(CAMPUS).fetchMap(CAMPUS.SOURCED_ID, CAMPUS.ID);
    Map<String, UUID> terms = db.selectFrom(TERM).fetchMap(TERM.SOURCED_ID, TERM.ID);
    List<UUID> kept = new ArrayList<>(terms.values());
    List<Query> q = new ArrayList<>();
    int vanished =
        db.update(SECTION)
            .set(SECTION.IN_ROSTER, false)
            .where(SECTION.TERM_ID.in(kept))
            .and(SECTION.SOURCED_ID.notIn(r.sections().stream().map(Roster.Section::id).toList()))
            .and(SECTION.IN_ROSTER)
            .execute();
    for (Roster.Section s : r.sections()) {
      q.add(
          db.insertInto(SECTION)
              .set(SECTION.ID, UUID.randomUUID())
              .set(SECTION.SOURCED_ID, s.id())
              .set(SECTION.CODE, s.code())
              .set(SECTION.TITLE, s.title())
              .set(SECTION.COURSE_ID, courses.get(s.course()))
              .set(SECTION.CAMPUS_ID, campuses.get(s.school()))
              .set(SECTION.TERM_ID, s.term().map(terms::get).orElse(null))
              .onConflict(SECTION.SOURCED_ID)
              .doUpdate()
              .set(SECTION.CODE, excluded(SECTION.CODE))
              .set(SECTION.TITLE, excluded(SECTION.TITLE))
              .set(SECTION.COURSE_ID, excluded(SECTION.COURSE_ID))
              .set(SECTION.CAMPUS_ID, excluded(SECTION.CAMPUS_ID))
              .set(SECTION.TERM_ID, excluded(SECTION.TERM_ID))
              .set(SECTION.IN_ROSTER, true));
    }
    db.batch(q).execute();
    return vanished;
  }

  /** Teachers become instructors; students are not kept. */
  private int people(Roster r) {
    Map<String, Roster.Person> byId = new HashMap<>();
    r.people().forEach(p -> byId.put(p.id(), p));
    Map<String, UUID> sections =
        db.select(SECTION.SOURCED_ID, SECTION.ID)
            .from(SECTION)
            .fetchMap(SECTION.SOURCED_ID, SECTION.ID);
    List<Roster.Enrollment> teaching =
        r.enrollments().stream().filter(e -> e.role().equalsIgnoreCase("teacher")).toList();
    List<Query> q = new ArrayList<>();
    teaching.stream()
        .map(Roster.Enrollment::person)
        .distinct()
        .map(byId::get)
        .forEach(
            p ->
                q.add(
                    db.insertInto(PERSON)
                        .set(PERSON.ID, UUID.randomUUID())
                        .set(PERSON.SOURCED_ID, p.id())
                        .set(
                            PERSON.EMAIL,
                            p.email().isEmpty() ? null : p.email().toLowerCase(Locale.ROOT))
                        .set(PERSON.NAME, p.givenName() + " " + p.familyName())
                        .set(PERSON.ROLE, "INSTRUCTOR")
                        .onConflict(PERSON.SOURCED_ID)
                        .doUpdate()
                        .set(PERSON.NAME, excluded(PERSON.NAME))));
    db.batch(q).execute();
    Map<String, UUID> people =
        db.selectFrom(PERSON)
            .where(PERSON.SOURCED_ID.isNotNull())
            .fetchMap(PERSON.SOURCED_ID, PERSON.ID);
    List<UUID> told = teaching.stream().map(e -> sections.get(e.section())).distinct().toList();
    db.deleteFrom(SECTION_INSTRUCTOR).where(SECTION_INSTRUCTOR.SECTION_ID.in(told)).execute();
    db.batch(
            teaching.stream()
                .map(
                    e ->
                        db.insertInto(SECTION_INSTRUCTOR)
                            .values(sections.get(e.section()), people.get(e.person()))
                            .onConflictDoNothing())
                .toList())
        .execute();
    return q.size();
  }
}
