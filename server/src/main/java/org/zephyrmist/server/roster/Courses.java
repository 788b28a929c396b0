package org.zephyrmist.server.roster;

import static org.zephyrmist.server.db.Tables.COURSE;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
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

  /**
   * The program of a master that these courses are to hold. Of several programs it is the whole
   * college's if its maker reaches that, else the first one's; without courses it is the program
   * named, or as far as its maker reaches.
   *
   * @throws Refusal if a course or program is out of reach, or it is not said which of several
   */
  public Optional<UUID> programOf(List<UUID> courses, Optional<UUID> program, SignedIn who) {
    if (courses.isEmpty()) {
      return reach.bound(program, who);
    }
    Map<UUID, UUID> programs =
        db.select(COURSE.ID, COURSE.PROGRAM_ID)
            .from(COURSE)
            .where(COURSE.ID.in(courses))
            .and(reach.program(who, COURSE.PROGRAM_ID))
            .fetchMap(COURSE.ID, COURSE.PROGRAM_ID);
    if (!programs.keySet().containsAll(courses)) {
      throw Refusal.notFound("course");
    }
    boolean several = Set.copyOf(programs.values()).size() > 1;
    return several && reach.everything(who)
        ? Optional.empty()
        : Optional.of(programs.get(courses.get(0)));
  }
}
