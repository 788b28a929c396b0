package org.zephyrmist.server.section;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.PLATFORM;
import static org.zephyrmist.server.db.Tables.SECTION;

import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.platform.Platforms;
import org.zephyrmist.server.web.Refusal;

/** Shells that are no section's: to try a delivery in first, or shared by many sections. */
@Component
class OtherShells {
  private static final int MOST = 500;
  private final DSLContext db;
  private final Reach reach;
  private final Platforms platforms;

  OtherShells(DSLContext db, Reach reach, Platforms platforms) {
    this.db = db;
    this.reach = reach;
    this.platforms = platforms;
  }

  /** What such a shell is for. */
  enum Purpose {
    /** Things are tried there first. */
    PRACTICE,
    /** Many sections use what it holds. */
    SHARED
  }

  /**
   * A shell that is no section's.
   *
   * @param section by which it is a target like a section
   * @param address where it is seen as a student sees it; null if its platform has none
   */
  record Other(
      UUID section,
      String title,
      Purpose purpose,
      String course,
      String platform,
      String address) {}

  /** Those within reach, by title. */
  List<Other> all(SignedIn who) {
    return db.select(
            SECTION.ID,
            SECTION.TITLE,
            SECTION.PURPOSE,
            COURSE.CODE,
            PLATFORM.NAME,
            PLATFORM.ADDRESS,
            SECTION.SHELL)
        .from(SECTION)
        .join(COURSE)
        .on(COURSE.ID.eq(SECTION.COURSE_ID))
        .join(PLATFORM)
        .on(PLATFORM.ID.eq(SECTION.PLATFORM_ID))
        .where(SECTION.PURPOSE.ne("SECTION"))
        .and(reach.sections(who))
        .orderBy(SECTION.TITLE, SECTION.ID)
        .limit(MOST)
        .fetch(
            r ->
                new Other(
                    r.value1(),
                    r.value2(),
                    Purpose.valueOf(r.value3()),
                    r.value4(),
                    r.value5(),
                    Platforms.shell(r.value6(), r.value7()).orElse(null)));
  }

  /** Shells of a platform that belong to nothing yet, the first that fit a text. */
  List<PlatformGateway.Shell> loose(UUID platform, String find) {
    Set<String> taken =
        db.select(SECTION.SHELL)
            .from(SECTION)
            .where(SECTION.PLATFORM_ID.eq(platform))
            .and(SECTION.SHELL.isNotNull())
            .fetchSet(SECTION.SHELL);
    String text = Titles.folded(find);
    return shells(platform).stream()
        .filter(s -> !taken.contains(s.id()))
        .filter(s -> Titles.folded(s.id() + " " + s.title()).contains(text))
        .limit(MOST)
        .toList();
  }

  private List<PlatformGateway.Shell> shells(UUID platform) {
    if (!db.fetchExists(PLATFORM, PLATFORM.ID.eq(platform))) {
      throw Refusal.notFound("platform");
    }
    try {
      return platforms.gateway(platform).shells();
    } catch (PlatformException e) {
      throw Refusal.bad(e.getMessage(), e.remedy());
    }
  }

  /**
   * Takes a shell as one to try things in, or a shared one.
   *
   * @param course of whose program one has to be
   */
  UUID take(UUID platform, String shell, Purpose purpose, UUID course, SignedIn who) {
    Condition own = COURSE.ID.eq(course).and(reach.program(who, COURSE.PROGRAM_ID));
    if (!db.fetchExists(COURSE, own)) {
      throw Refusal.notFound("course");
    }
    PlatformGateway.Shell there =
        shells(platform).stream()
            .filter(s -> s.id().equals(shell))
            .findFirst()
            .orElseThrow(() -> Refusal.notFound("shell"));
    if (db.fetchExists(
        SECTION,
        SECTION
            .SOURCED_ID
            .eq(shell)
            .or(SECTION.SHELL.eq(shell).and(SECTION.PLATFORM_ID.eq(platform))))) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "This shell belongs to a section, or is taken already.",
          "Choose another shell.");
    }
    UUID campus =
        db.select(CAMPUS.ID).from(CAMPUS).orderBy(CAMPUS.NAME).limit(1).fetchSingle(CAMPUS.ID);
    UUID id = UUID.randomUUID();
    db.insertInto(SECTION)
        .set(SECTION.ID, id)
        .set(SECTION.SOURCED_ID, shell)
        .set(SECTION.CODE, Titles.firstOf(there.title(), shell))
        .set(SECTION.TITLE, Titles.firstOf(there.title(), shell))
        .set(SECTION.COURSE_ID, course)
        .set(SECTION.CAMPUS_ID, campus)
        .set(SECTION.IN_ROSTER, false)
        .set(SECTION.PLATFORM_ID, platform)
        .set(SECTION.SHELL, shell)
        .set(SECTION.PURPOSE, purpose.name())
        .execute();
    return id;
  }
}
