package org.zephyrmist.server.roster;

import static org.jooq.impl.DSL.all;
import static org.jooq.impl.DSL.any;
import static org.jooq.impl.DSL.excluded;
import static org.jooq.impl.DSL.falseCondition;
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
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Query;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.roster.Roster;
import org.zephyrmist.core.roster.Roster.Remark;
import org.zephyrmist.server.db.tables.Person;

/** Brings a roster in. Taken in again, nothing doubles; what vanished is kept and marked. */
@Component
public class RosterIntake {
  private static final Person TAKEN = PERSON.as("taken");
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

  /** What a bundle of changes may refer to. */
  public Roster.Known known() {
    Set<String> orgs = db.select(CAMPUS.SOURCED_ID).from(CAMPUS).fetchSet(CAMPUS.SOURCED_ID);
    orgs.addAll(db.select(PROGRAM.SOURCED_ID).from(PROGRAM).fetchSet(PROGRAM.SOURCED_ID));
    return new Roster.Known(
        orgs,
        db.select(TERM.SOURCED_ID).from(TERM).fetchSet(TERM.SOURCED_ID),
        db.select(COURSE.SOURCED_ID).from(COURSE).fetchSet(COURSE.SOURCED_ID),
        db.select(SECTION.SOURCED_ID).from(SECTION).fetchSet(SECTION.SOURCED_ID));
  }

  /** One roster at a time, all or nothing. */
  @Transactional
  public Report take(Roster r) {
    db.query("select pg_advisory_xact_lock(1)").execute();
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
    int vanished = sections(r, remarks);
    int instructors = people(r, remarks);
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

  private int sections(Roster r, List<Remark> remarks) {
    Map<String, UUID> courses = db.selectFrom(COURSE).fetchMap(COURSE.SOURCED_ID, COURSE.ID);
    Map<String, UUID> campuses = db.selectFrom(CAMPUS).fetchMap(CAMPUS.SOURCED_ID, CAMPUS.ID);
    Map<String, UUID> terms = db.selectFrom(TERM).fetchMap(TERM.SOURCED_ID, TERM.ID);
    int vanished = vanish(r, terms);
    List<Query> q = new ArrayList<>();
    for (Roster.Section s : r.sections()) {
      if (!campuses.containsKey(s.school())) {
        remarks.add(
            new Remark(
                "classes.csv",
                0,
                "Class " + s.id() + " is held by " + s.school() + ", which is a department.",
                "It was left out; name a school in schoolSourcedId."));
        continue;
      }
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

  /** Marks what the roster no longer has; nothing is deleted. */
  private int vanish(Roster r, Map<String, UUID> terms) {
    UUID[] told = r.terms().stream().map(Roster.Term::id).map(terms::get).toArray(UUID[]::new);
    String[] listed = r.sections().stream().map(Roster.Section::id).toArray(String[]::new);
    String[] gone = r.gone().sections().toArray(String[]::new);
    Condition absent =
        r.gone().allElse()
            ? SECTION.TERM_ID.eq(any(told)).and(SECTION.SOURCED_ID.ne(all(listed)))
            : falseCondition();
    return db.update(SECTION)
        .set(SECTION.IN_ROSTER, false)
        .where(absent.or(SECTION.SOURCED_ID.eq(any(gone))))
        .and(SECTION.IN_ROSTER)
        .execute();
  }

  /** Teachers become instructors; students are not kept. */
  private int people(Roster r, List<Remark> remarks) {
    Map<String, Roster.Person> byId = new HashMap<>();
    r.people().forEach(p -> byId.put(p.id(), p));
    List<Roster.Enrollment> teaching =
        r.enrollments().stream().filter(Roster.Enrollment::teaches).toList();
    List<Roster.Person> teachers =
        teaching.stream()
            .map(Roster.Enrollment::person)
            .distinct()
            .map(byId::get)
            .filter(Objects::nonNull)
            .toList();
    admit(teachers, remarks);
    Map<String, UUID> people =
        db.selectFrom(PERSON)
            .where(PERSON.SOURCED_ID.isNotNull())
            .fetchMap(PERSON.SOURCED_ID, PERSON.ID);
    Map<String, UUID> sections =
        db.select(SECTION.SOURCED_ID, SECTION.ID)
            .from(SECTION)
            .fetchMap(SECTION.SOURCED_ID, SECTION.ID);
    List<Query> q = new ArrayList<>();
    if (r.gone().allElse()) {
      UUID[] told = ids(teaching, sections);
      q.add(db.deleteFrom(SECTION_INSTRUCTOR).where(SECTION_INSTRUCTOR.SECTION_ID.eq(any(told))));
    }
    for (Roster.Enrollment e : r.gone().enrollments()) {
      if (e.teaches()) {
        q.add(
            db.deleteFrom(SECTION_INSTRUCTOR)
                .where(SECTION_INSTRUCTOR.SECTION_ID.eq(sections.get(e.section())))
                .and(SECTION_INSTRUCTOR.PERSON_ID.eq(people.get(e.person()))));
      }
    }
    for (Roster.Enrollment e : teaching) {
      UUID section = sections.get(e.section());
      UUID person = people.get(e.person());
      if (person == null) {
        remarks.add(
            new Remark(
                "enrollments.csv",
                0,
                "Class " + e.section() + " names user " + e.person() + ", who is not known.",
                "The row was left out; export the bundle again with that user in it."));
      } else if (section != null) {
        q.add(db.insertInto(SECTION_INSTRUCTOR).values(section, person).onConflictDoNothing());
      }
    }
    db.batch(q).execute();
    return teachers.size();
  }

  private static UUID[] ids(List<Roster.Enrollment> teaching, Map<String, UUID> sections) {
    return teaching.stream()
        .map(e -> sections.get(e.section()))
        .filter(Objects::nonNull)
        .distinct()
        .toArray(UUID[]::new);
  }

  /**
   * Brings teachers in. Who was admitted by hand under the same address is the same person; an
   * address that two persons of the roster share belongs to the first.
   */
  private void admit(List<Roster.Person> teachers, List<Remark> remarks) {
    Map<String, String> owners = new HashMap<>();
    db.selectFrom(PERSON)
        .where(PERSON.EMAIL.isNotNull())
        .forEach(p -> owners.put(p.getEmail(), p.getSourcedId()));
    List<Query> q = new ArrayList<>();
    for (Roster.Person p : teachers) {
      String email = p.email().isEmpty() ? null : p.email().toLowerCase(Locale.ROOT);
      if (email != null && owners.containsKey(email) && owners.get(email) == null) {
        q.add(
            db.update(PERSON)
                .set(PERSON.SOURCED_ID, p.id())
                .where(PERSON.EMAIL.eq(email))
                .andNotExists(db.selectFrom(TAKEN).where(TAKEN.SOURCED_ID.eq(p.id()))));
      } else if (email != null && !owners.getOrDefault(email, p.id()).equals(p.id())) {
        remarks.add(
            new Remark(
                "users.csv",
                0,
                "Users "
                    + owners.get(email)
                    + " and "
                    + p.id()
                    + " have one address, "
                    + email
                    + ".",
                "The second was taken in without it and cannot sign in; give each their own."));
        email = null;
      }
      if (email != null) {
        owners.put(email, p.id());
      }
      q.add(
          db.insertInto(PERSON)
              .set(PERSON.ID, UUID.randomUUID())
              .set(PERSON.SOURCED_ID, p.id())
              .set(PERSON.EMAIL, email)
              .set(PERSON.NAME, p.givenName() + " " + p.familyName())
              .set(PERSON.ROLE, "INSTRUCTOR")
              .onConflict(PERSON.SOURCED_ID)
              .doUpdate()
              .set(PERSON.NAME, excluded(PERSON.NAME)));
    }
    db.batch(q).execute();
  }
}
