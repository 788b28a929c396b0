package org.zephyrmist.server.people;

import static org.jooq.impl.DSL.exists;
import static org.jooq.impl.DSL.noCondition;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.selectOne;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.MASTER_KEEPER;
import static org.zephyrmist.server.db.Tables.PERSON_PROGRAM;
import static org.zephyrmist.server.db.Tables.PROGRAM;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.web.Refusal;

/**
 * How far a person's role reaches, as conditions on queries: coordinators and designers their own
 * programs, instructors their own sections, administrators all.
 */
@Component
public class Reach {
  private final DSLContext db;

  Reach(DSLContext db) {
    this.db = db;
  }

  /** On rows of {@code section}. */
  public Condition sections(SignedIn who) {
    return switch (who.role()) {
      case ADMINISTRATOR -> noCondition();
      case COORDINATOR, DESIGNER ->
          SECTION.COURSE_ID.in(
              select(COURSE.ID).from(COURSE).where(COURSE.PROGRAM_ID.in(programs(who))));
      case INSTRUCTOR ->
          exists(
              selectOne()
                  .from(SECTION_INSTRUCTOR)
                  .where(SECTION_INSTRUCTOR.SECTION_ID.eq(SECTION.ID))
                  .and(SECTION_INSTRUCTOR.PERSON_ID.eq(who.id())));
    };
  }

  /** On rows of {@code master}: a master of no program is the whole college's. */
  public Condition masters(SignedIn who) {
    return switch (who.role()) {
      case ADMINISTRATOR -> noCondition();
      case COORDINATOR, DESIGNER ->
          MASTER.PROGRAM_ID.isNull().or(MASTER.PROGRAM_ID.in(programs(who)));
      case INSTRUCTOR -> org.jooq.impl.DSL.falseCondition();
    };
  }

  /**
   * On rows of {@code master}: those that a person may change. A master of no program is the
   * college's; only who reaches everything changes it, and who was named.
   */
  public Condition changes(SignedIn who) {
    if (everything(who)) {
      return noCondition();
    }
    return switch (who.role()) {
      case ADMINISTRATOR -> noCondition();
      case INSTRUCTOR -> org.jooq.impl.DSL.falseCondition();
      case COORDINATOR, DESIGNER ->
          MASTER
              .PROGRAM_ID
              .in(programs(who))
              .or(
                  MASTER
                      .PROGRAM_ID
                      .isNull()
                      .and(
                          exists(
                              selectOne()
                                  .from(MASTER_KEEPER)
                                  .where(MASTER_KEEPER.MASTER_ID.eq(MASTER.ID))
                                  .and(MASTER_KEEPER.PERSON_ID.eq(who.id())))));
    };
  }

  /** The same as a column that is true or false. */
  public Field<Boolean> mayChange(SignedIn who) {
    return everything(who)
        ? org.jooq.impl.DSL.inline(true)
        : org.jooq.impl.DSL.coalesce(org.jooq.impl.DSL.field(changes(who)), false);
  }

  /** Whether there is no program that a person does not reach: an administrator's is every one. */
  public boolean everything(SignedIn who) {
    return switch (who.role()) {
      case ADMINISTRATOR -> true;
      case INSTRUCTOR -> false;
      case COORDINATOR, DESIGNER ->
          db.fetchExists(programs(who))
              && !db.fetchExists(PROGRAM, PROGRAM.ID.notIn(programs(who)));
    };
  }

  /**
   * How far something may reach that a person makes for every section: the program named, or the
   * only one that they reach; none: the whole college.
   *
   * @throws Refusal if it is not said which of several, or they reach none
   */
  public Optional<UUID> bound(Optional<UUID> program, SignedIn who) {
    if (program.isPresent()) {
      if (!db.fetchExists(PROGRAM, PROGRAM.ID.eq(program.get()).and(program(who, PROGRAM.ID)))) {
        throw Refusal.notFound("program");
      }
      return program;
    }
    if (everything(who)) {
      return Optional.empty();
    }
    List<UUID> all = db.fetch(programs(who)).map(r -> r.value1());
    if (all.size() != 1) {
      throw Refusal.bad(
          all.isEmpty()
              ? "You reach no program yet."
              : "You reach several programs, and not the whole college.",
          all.isEmpty()
              ? "Ask an administrator for a program."
              : "Name the program that is meant.");
    }
    return Optional.of(all.get(0));
  }

  /** On a column that holds a program. */
  public Condition program(SignedIn who, Field<UUID> column) {
    return who.role() == Role.ADMINISTRATOR ? noCondition() : column.in(programs(who));
  }

  private static org.jooq.Select<org.jooq.Record1<java.util.UUID>> programs(SignedIn who) {
    return select(PERSON_PROGRAM.PROGRAM_ID)
        .from(PERSON_PROGRAM)
        .where(PERSON_PROGRAM.PERSON_ID.eq(who.id()));
  }
}
