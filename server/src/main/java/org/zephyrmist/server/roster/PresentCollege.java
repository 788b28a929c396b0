package org.zephyrmist.server.roster;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.PERSON_PROGRAM;
import static org.zephyrmist.server.db.Tables.PROGRAM;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;
import static org.zephyrmist.server.db.Tables.TERM;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.roster.Present;
import org.zephyrmist.core.roster.Roster;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.people.SignedIn;

/** The college as it is, by the roster's identifiers; a fixed number of queries. */
@Component
class PresentCollege {
  private final DSLContext db;

  PresentCollege(DSLContext db) {
    this.db = db;
  }

  Present now() {
    return new Present(
        db.selectFrom(PROGRAM).fetchMap(PROGRAM.SOURCED_ID, PROGRAM.NAME),
        db.selectFrom(CAMPUS).fetchMap(CAMPUS.SOURCED_ID, CAMPUS.NAME),
        terms(),
        courses(),
        sections(),
        people(),
        addresses());
  }

  private Map<String, Roster.Term> terms() {
    return db.selectFrom(TERM)
        .fetchMap(
            TERM.SOURCED_ID,
            t -> new Roster.Term(t.getSourcedId(), t.getTitle(), t.getFirstDay(), t.getLastDay()));
  }

  private Map<String, Roster.Course> courses() {
    return db.select(COURSE.SOURCED_ID, COURSE.CODE, COURSE.TITLE, PROGRAM.SOURCED_ID)
        .from(COURSE)
        .join(PROGRAM)
        .on(PROGRAM.ID.eq(COURSE.PROGRAM_ID))
        .fetchMap(
            COURSE.SOURCED_ID,
            r -> new Roster.Course(r.value1(), r.value2(), r.value3(), r.value4()));
  }

  private Map<String, Present.Kept> sections() {
    Map<String, Set<Roster.Teaching>> teaching = teaching();
    return db.select(SECTION.fields())
        .select(COURSE.SOURCED_ID, CAMPUS.SOURCED_ID, TERM.SOURCED_ID)
        .from(SECTION)
        .join(COURSE)
        .on(COURSE.ID.eq(SECTION.COURSE_ID))
        .join(CAMPUS)
        .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
        .leftJoin(TERM)
        .on(TERM.ID.eq(SECTION.TERM_ID))
        .fetchMap(
            SECTION.SOURCED_ID,
            r ->
                new Present.Kept(
                    new Roster.Section(
                        r.get(SECTION.SOURCED_ID),
                        r.get(SECTION.TITLE),
                        r.get(SECTION.CODE),
                        r.get(COURSE.SOURCED_ID),
                        r.get(CAMPUS.SOURCED_ID),
                        Optional.ofNullable(r.get(TERM.SOURCED_ID))),
                    r.get(SECTION.IN_ROSTER),
                    teaching.getOrDefault(r.get(SECTION.SOURCED_ID), Set.of())));
  }

  private Map<String, Set<Roster.Teaching>> teaching() {
    Map<String, Set<Roster.Teaching>> teaching = new HashMap<>();
    db.select(SECTION.SOURCED_ID, PERSON.SOURCED_ID, SECTION_INSTRUCTOR.IS_PRIMARY)
        .from(SECTION_INSTRUCTOR)
        .join(SECTION)
        .on(SECTION.ID.eq(SECTION_INSTRUCTOR.SECTION_ID))
        .join(PERSON)
        .on(PERSON.ID.eq(SECTION_INSTRUCTOR.PERSON_ID))
        .where(PERSON.SOURCED_ID.isNotNull())
        .forEach(
            r ->
                teaching
                    .computeIfAbsent(r.value1(), s -> new HashSet<>())
                    .add(new Roster.Teaching(r.value1(), r.value2(), r.value3())));
    return teaching;
  }

  private Map<String, Present.Teacher> people() {
    return db.selectFrom(PERSON)
        .where(PERSON.SOURCED_ID.isNotNull())
        .fetchMap(
            PERSON.SOURCED_ID,
            p -> new Present.Teacher(p.getName(), p.getRole() == Role.INSTRUCTOR));
  }

  private Map<String, Optional<String>> addresses() {
    return db.select(PERSON.EMAIL, PERSON.SOURCED_ID)
        .from(PERSON)
        .where(PERSON.EMAIL.isNotNull())
        .fetchMap(PERSON.EMAIL, p -> Optional.ofNullable(p.value2()));
  }

  /**
   * Programs that a person's roster may change; all for administrators, and on an empty college.
   */
  Optional<Set<String>> reach(SignedIn who) {
    return who.role() == Role.ADMINISTRATOR || !db.fetchExists(PROGRAM)
        ? Optional.empty()
        : Optional.of(
            db.select(PROGRAM.SOURCED_ID)
                .from(PERSON_PROGRAM)
                .join(PROGRAM)
                .on(PROGRAM.ID.eq(PERSON_PROGRAM.PROGRAM_ID))
                .where(PERSON_PROGRAM.PERSON_ID.eq(who.id()))
                .fetchSet(PROGRAM.SOURCED_ID));
  }
}
