package org.zephyrmist.server.roster;

import static org.zephyrmist.server.db.Tables.COURSE;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Courses within a person's reach. */
@Component
public class Courses {
  private final DSLContext db;
  private final Reach reach;

  Courses(DSLContext db, Reach reach) {
    this.db = db;
    this.reach = reach;
  }

  /** The program of these courses; none if there are no courses, refused if they are of several. */
  public Optional<UUID> programOf(List<UUID> courses, SignedIn who) {
    if (courses.isEmpty()) {
      return Optional.empty();
    }
    List<UUID> programs =
        db.select(COURSE.PROGRAM_ID)
            .from(COURSE)
            .where(COURSE.ID.in(courses))
            .and(reach.program(who, COURSE.PROGRAM_ID))
            .fetch(COURSE.PROGRAM_ID);
    if (programs.size() < courses.size()) {
      throw Refusal.notFound("course");
    }
    return programs.stream().distinct().count() == 1
        ? Optional.of(programs.get(0))
        : Optional.empty();
  }
}
