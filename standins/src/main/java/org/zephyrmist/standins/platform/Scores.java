package org.zephyrmist.standins.platform;

import static org.zephyrmist.standins.db.Tables.ITEM;
import static org.zephyrmist.standins.db.Tables.SUBMISSION;
import static org.zephyrmist.standins.db.Tables.TOOL_SCORE;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.lti.Score;

/** Scores that tools send: they count as the points of their task say. */
@Component
class Scores {
  private final DSLContext db;
  private final Clock clock;

  Scores(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /** The last score of a host in a shell, and the points of its task. */
  record Last(OffsetDateTime at, BigDecimal outOf, BigDecimal points) {
    static final Last NONE = new Last(null, null, null);
  }

  /** By shell and host, with a blank between. */
  Map<String, Last> last(Collection<String> shells) {
    Map<String, Last> all = new HashMap<>();
    db.select(TOOL_SCORE.SHELL_ID, TOOL_SCORE.HOST, TOOL_SCORE.AT, TOOL_SCORE.MAXIMUM, points())
        .from(TOOL_SCORE)
        .join(ITEM)
        .on(ITEM.ID.eq(TOOL_SCORE.ITEM_ID))
        .where(TOOL_SCORE.SHELL_ID.in(shells))
        .orderBy(TOOL_SCORE.AT)
        .forEach(
            r ->
                all.put(
                    r.value1() + ' ' + r.value2(), new Last(r.value3(), r.value4(), r.value5())));
    return all;
  }

  private static org.jooq.Field<BigDecimal> points() {
    return org.jooq.impl.DSL.field("(grading ->> 'points')::numeric", BigDecimal.class);
  }

  @Transactional
  void put(String shell, String item, String host, String person, Score s) {
    BigDecimal points =
        db.select(points())
            .from(ITEM)
            .where(ITEM.ID.eq(item))
            .and(ITEM.SHELL_ID.eq(shell))
            .fetchSingle()
            .value1();
    db.deleteFrom(TOOL_SCORE)
        .where(TOOL_SCORE.SHELL_ID.eq(shell))
        .and(TOOL_SCORE.ITEM_ID.eq(item))
        .and(TOOL_SCORE.PERSON.eq(person))
        .execute();
    OffsetDateTime now = OffsetDateTime.now(clock);
    db.insertInto(TOOL_SCORE)
        .values(
            shell,
            host,
            item,
            person,
            BigDecimal.valueOf(s.given()),
            BigDecimal.valueOf(s.maximum()),
            now)
        .execute();
    double counts = s.of(points == null ? s.maximum() : points.doubleValue());
    db.insertInto(SUBMISSION)
        .set(SUBMISSION.ITEM_ID, item)
        .set(SUBMISSION.STUDENT, person)
        .set(SUBMISSION.TEXT, "Done in the tool")
        .set(SUBMISSION.GRADE, BigDecimal.valueOf(counts))
        .set(SUBMISSION.AT, now)
        .execute();
  }
}
