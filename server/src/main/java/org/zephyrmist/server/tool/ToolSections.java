package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.PLATFORM;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TERM;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.RosterValue;
import org.zephyrmist.core.tool.SectionPlace;

/** Sections as tools ask about them. */
@Component
class ToolSections {
  private final DSLContext db;

  ToolSections(DSLContext db) {
    this.db = db;
  }

  /**
   * A section.
   *
   * @param place with its values, as patterns name them
   * @param campus its name
   * @param byHand whether its platform has no interface to write by
   */
  record ToolSection(
      UUID id,
      String code,
      String title,
      String campus,
      SectionPlace place,
      Optional<UUID> platform,
      Optional<String> shell,
      boolean byHand) {}

  /** In the order of courses and codes. */
  List<ToolSection> where(Condition which) {
    return db.select(
            SECTION.ID,
            SECTION.SOURCED_ID,
            SECTION.CODE,
            SECTION.TITLE,
            COURSE.CODE,
            COURSE.TITLE,
            CAMPUS.SOURCED_ID,
            CAMPUS.NAME,
            SECTION.TERM_ID,
            TERM.TITLE,
            SECTION.PLATFORM_ID,
            SECTION.SHELL,
            PLATFORM.ADDRESS)
        .from(SECTION)
        .join(COURSE)
        .on(COURSE.ID.eq(SECTION.COURSE_ID))
        .join(CAMPUS)
        .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
        .leftJoin(TERM)
        .on(TERM.ID.eq(SECTION.TERM_ID))
        .leftJoin(PLATFORM)
        .on(PLATFORM.ID.eq(SECTION.PLATFORM_ID))
        .where(which)
        .orderBy(COURSE.CODE, SECTION.CODE, SECTION.ID)
        .fetch(
            r -> {
              Map<String, String> values = new HashMap<>();
              values.put("section", r.value2());
              values.put(RosterValue.SECTION_CODE.value(), r.value3());
              values.put(RosterValue.SECTION_TITLE.value(), r.value4());
              values.put(RosterValue.COURSE_CODE.value(), r.value5());
              values.put(RosterValue.COURSE_TITLE.value(), r.value6());
              values.put(RosterValue.CAMPUS.value(), r.value8());
              if (r.value10() != null) {
                values.put(RosterValue.TERM.value(), r.value10());
              }
              String term = r.value9() == null ? "" : r.value9().toString();
              return new ToolSection(
                  r.value1(),
                  r.value3(),
                  r.value4(),
                  r.value8(),
                  new SectionPlace(r.value2(), r.value5(), r.value7(), term, values),
                  Optional.ofNullable(r.value11()),
                  Optional.ofNullable(r.value12()),
                  r.value11() != null && r.value13() == null);
            });
  }
}
