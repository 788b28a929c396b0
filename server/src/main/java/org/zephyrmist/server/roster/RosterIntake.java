package org.zephyrmist.server.roster;

import static org.jooq.impl.DSL.any;
import static org.jooq.impl.DSL.excluded;
import static org.jooq.impl.DSL.row;
import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.PROGRAM;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;
import static org.zephyrmist.server.db.Tables.TERM;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.jooq.Query;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.roster.Roster;
import org.zephyrmist.core.roster.RosterPlan;
import org.zephyrmist.core.roster.RosterPlanner;
import org.zephyrmist.server.people.Role;

/** Carries out what taking a roster in means. Nothing is deleted; what ended is kept and marked. */
@Component
public class RosterIntake {
  private final DSLContext db;
  private final TaughtInParts parts;

  RosterIntake(DSLContext db, TaughtInParts parts) {
    this.parts = parts;
    this.db = db;
  }

  /** One roster at a time; to be called before the college is read that the plan is made from. */
  @Transactional(propagation = Propagation.MANDATORY)
  public void begin() {
    db.query("select pg_advisory_xact_lock(1)").execute();
  }

  /** All or nothing, within the running transaction. */
  @Transactional
  public void take(RosterPlan p) {
    List<Query> q = new ArrayList<>();
    p.programs().forEach(o -> q.add(program(o.id(), o.name())));
    if (p.courses().stream().anyMatch(c -> c.program().equals(RosterPlanner.COLLEGE))) {
      q.add(program(RosterPlanner.COLLEGE, "Whole college"));
    }
    for (Roster.Org o : p.campuses()) {
      q.add(
          db.insertInto(CAMPUS)
              .values(UUID.randomUUID(), o.id(), o.name())
              .onConflict(CAMPUS.SOURCED_ID)
              .doUpdate()
              .set(CAMPUS.NAME, excluded(CAMPUS.NAME)));
    }
    for (Roster.Term t : p.terms()) {
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
    courses(p);
    sections(p);
    parts.take(p.parts());
    people(p);
    teaching(p);
  }

  private Query program(String id, String name) {
    return db.insertInto(PROGRAM)
        .values(UUID.randomUUID(), id, name)
        .onConflict(PROGRAM.SOURCED_ID)
        .doUpdate()
        .set(PROGRAM.NAME, excluded(PROGRAM.NAME));
  }

  private void courses(RosterPlan p) {
    Map<String, UUID> programs = db.selectFrom(PROGRAM).fetchMap(PROGRAM.SOURCED_ID, PROGRAM.ID);
    db.batch(
            p.courses().stream()
                .map(
                    c ->
                        db.insertInto(COURSE)
                            .values(
                                UUID.randomUUID(),
                                c.id(),
                                c.code(),
                                c.title(),
                                programs.get(c.program()))
                            .onConflict(COURSE.SOURCED_ID)
                            .doUpdate()
                            .set(COURSE.CODE, excluded(COURSE.CODE))
                            .set(COURSE.TITLE, excluded(COURSE.TITLE))
                            .set(COURSE.PROGRAM_ID, excluded(COURSE.PROGRAM_ID)))
                .toList())
        .execute();
  }

  private void sections(RosterPlan p) {
    Map<String, UUID> courses = db.selectFrom(COURSE).fetchMap(COURSE.SOURCED_ID, COURSE.ID);
    Map<String, UUID> campuses = db.selectFrom(CAMPUS).fetchMap(CAMPUS.SOURCED_ID, CAMPUS.ID);
    Map<String, UUID> terms = db.selectFrom(TERM).fetchMap(TERM.SOURCED_ID, TERM.ID);
    List<Query> q = new ArrayList<>();
    Stream.concat(p.added().stream(), p.changed().stream())
        .forEach(
            s ->
                q.add(
                    db.insertInto(SECTION)
                        .set(SECTION.ID, UUID.randomUUID())
                        .set(SECTION.SOURCED_ID, s.id())
                        .set(SECTION.CODE, s.code())
                        .set(SECTION.TITLE, s.title())
                        .set(SECTION.COURSE_ID, courses.get(s.course()))
                        .set(SECTION.CAMPUS_ID, campuses.get(s.campus()))
                        .set(SECTION.TERM_ID, s.term().map(terms::get).orElse(null))
                        .onConflict(SECTION.SOURCED_ID)
                        .doUpdate()
                        .set(SECTION.CODE, excluded(SECTION.CODE))
                        .set(SECTION.TITLE, excluded(SECTION.TITLE))
                        .set(SECTION.COURSE_ID, excluded(SECTION.COURSE_ID))
                        .set(SECTION.CAMPUS_ID, excluded(SECTION.CAMPUS_ID))
                        .set(SECTION.TERM_ID, excluded(SECTION.TERM_ID))));
    q.add(inRoster(p.back(), true));
    q.add(inRoster(p.ended(), false));
    db.batch(q).execute();
    db.query(
            "update section s set enrolled = x.n from unnest(?::text[], ?::int[]) as x (id, n)"
                + " where s.sourced_id = x.id",
            p.students().keySet().toArray(String[]::new),
            p.students().values().toArray(Integer[]::new))
        .execute();
  }

  private Query inRoster(Set<String> sections, boolean is) {
    return db.update(SECTION)
        .set(SECTION.IN_ROSTER, is)
        .where(SECTION.SOURCED_ID.eq(any(sections.toArray(String[]::new))));
  }

  /** Brings teachers in. Who was admitted by hand under the same address is the same person. */
  private void people(RosterPlan p) {
    List<Query> q = new ArrayList<>();
    for (Roster.Person person : p.people()) {
      String email = person.email().isEmpty() ? null : person.email();
      q.add(
          db.update(PERSON)
              .set(PERSON.SOURCED_ID, person.id())
              .where(PERSON.EMAIL.eq(email))
              .and(PERSON.SOURCED_ID.isNull())
              .andNotExists(
                  db.selectFrom(PERSON.as("taken"))
                      .where(PERSON.as("taken").SOURCED_ID.eq(person.id()))));
      q.add(
          db.insertInto(PERSON)
              .set(PERSON.ID, UUID.randomUUID())
              .set(PERSON.SOURCED_ID, person.id())
              .set(PERSON.EMAIL, email)
              .set(PERSON.NAME, person.name())
              .set(PERSON.ROLE, Role.INSTRUCTOR)
              .onConflict(PERSON.SOURCED_ID)
              .doUpdate()
              .set(PERSON.NAME, excluded(PERSON.NAME))
              .where(PERSON.ROLE.eq(Role.INSTRUCTOR)));
    }
    db.batch(q).execute();
  }

  private void teaching(RosterPlan p) {
    Map<String, UUID> people =
        db.selectFrom(PERSON)
            .where(PERSON.SOURCED_ID.isNotNull())
            .fetchMap(PERSON.SOURCED_ID, PERSON.ID);
    Map<String, UUID> sections =
        db.select(SECTION.SOURCED_ID, SECTION.ID)
            .from(SECTION)
            .fetchMap(SECTION.SOURCED_ID, SECTION.ID);
    List<Query> q = new ArrayList<>();
    for (Roster.Teaching t : p.leave()) {
      q.add(
          db.deleteFrom(SECTION_INSTRUCTOR)
              .where(
                  row(SECTION_INSTRUCTOR.SECTION_ID, SECTION_INSTRUCTOR.PERSON_ID)
                      .eq(sections.get(t.section()), people.get(t.person()))));
    }
    for (Roster.Teaching t : p.teach()) {
      q.add(
          db.insertInto(SECTION_INSTRUCTOR)
              .values(sections.get(t.section()), people.get(t.person()), t.primary())
              .onConflict(SECTION_INSTRUCTOR.SECTION_ID, SECTION_INSTRUCTOR.PERSON_ID)
              .doUpdate()
              .set(SECTION_INSTRUCTOR.IS_PRIMARY, t.primary()));
    }
    db.batch(q).execute();
  }
}
