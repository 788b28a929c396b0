package org.zephyrmist.server.people;

import static org.jooq.impl.DSL.exists;
import static org.jooq.impl.DSL.noCondition;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.selectOne;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PERSON_PROGRAM;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;

import java.util.UUID;
import org.jooq.Condition;
import org.jooq.Field;
import org.springframework.stereotype.Component;

/**
 * How far a person's role reaches, as conditions on queries: coordinators and designers their own
 * programs, instructors their own sections, administrators all.
 */
@Component
public class Reach {
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
