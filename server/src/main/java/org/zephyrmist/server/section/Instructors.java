package org.zephyrmist.server.section;

import static org.jooq.impl.DSL.listAgg;
import static org.jooq.impl.DSL.noCondition;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;

import java.util.Collection;
import java.util.Map;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Names of those who teach, by section. */
@Component
public class Instructors {
  private final DSLContext db;

  Instructors(DSLContext db) {
    this.db = db;
  }

  public Map<UUID, String> all() {
    return names(noCondition());
  }

  public Map<UUID, String> ofDelivery(UUID delivery) {
    return names(
        SECTION_INSTRUCTOR.SECTION_ID.in(
            db.select(DELIVERY_LINE.SECTION_ID)
                .from(DELIVERY_LINE)
                .where(DELIVERY_LINE.DELIVERY_ID.eq(delivery))));
  }

  public Map<UUID, String> of(Collection<UUID> sections) {
    return names(SECTION_INSTRUCTOR.SECTION_ID.in(sections));
  }

  private Map<UUID, String> names(Condition which) {
    var names =
        listAgg(PERSON.NAME, ", ")
            .withinGroupOrderBy(SECTION_INSTRUCTOR.IS_PRIMARY.desc(), PERSON.NAME);
    return db.select(SECTION_INSTRUCTOR.SECTION_ID, names)
        .from(SECTION_INSTRUCTOR)
        .join(PERSON)
        .on(PERSON.ID.eq(SECTION_INSTRUCTOR.PERSON_ID))
        .where(which)
        .groupBy(SECTION_INSTRUCTOR.SECTION_ID)
        .fetchMap(SECTION_INSTRUCTOR.SECTION_ID, names);
  }
}
