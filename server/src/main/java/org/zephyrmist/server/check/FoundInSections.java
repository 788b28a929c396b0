package org.zephyrmist.server.check;

import static org.zephyrmist.server.db.Tables.FINDING;
import static org.zephyrmist.server.db.Tables.FINDING_ASKED;
import static org.zephyrmist.server.db.Tables.RIGHT_HERE;
import static org.zephyrmist.server.db.Tables.SECTION;

import jakarta.validation.constraints.NotNull;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.check.Check;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;

/** One finding in each of its sections, and what is right as it is. */
@Component
class FoundInSections {
  private final DSLContext db;
  private final Reach reach;

  FoundInSections(DSLContext db, Reach reach) {
    this.db = db;
    this.reach = reach;
  }

  /**
   * What is found in one section of a row.
   *
   * @param item the platform's id; absent if it is about none that is there
   * @param right why it is right as it is there; absent if nobody has said so
   */
  record FoundIn(
      @NotNull UUID section,
      @NotNull String evidence,
      @NotNull OffsetDateTime since,
      String item,
      String shell,
      String asked,
      String right) {}

  /** Section by section, in the order of their codes. */
  List<FoundIn> row(UUID term, Check check, String subject, SignedIn who) {
    return db.select(FINDING.fields())
        .select(FINDING_ASKED.NOTE, RIGHT_HERE.REASON)
        .from(FINDING)
        .join(SECTION)
        .on(SECTION.ID.eq(FINDING.SECTION_ID))
        .leftJoin(FINDING_ASKED)
        .on(FINDING_ASKED.SECTION_ID.eq(FINDING.SECTION_ID))
        .and(FINDING_ASKED.CHECK_NAME.eq(FINDING.CHECK_NAME))
        .and(FINDING_ASKED.SUBJECT.eq(FINDING.SUBJECT))
        .leftJoin(RIGHT_HERE)
        .on(RIGHT_HERE.SECTION_ID.eq(FINDING.SECTION_ID))
        .and(RIGHT_HERE.CHECK_NAME.eq(FINDING.CHECK_NAME))
        .and(RIGHT_HERE.SUBJECT.eq(FINDING.SUBJECT))
        .and(RIGHT_HERE.EVIDENCE.eq(FINDING.EVIDENCE))
        .where(SECTION.TERM_ID.eq(term))
        .and(reach.sections(who))
        .and(FINDING.CHECK_NAME.eq(check))
        .and(FINDING.SUBJECT.eq(subject))
        .orderBy(SECTION.CODE, SECTION.ID, FINDING.ITEM)
        .fetch(
            r ->
                new FoundIn(
                    r.get(FINDING.SECTION_ID),
                    r.get(FINDING.EVIDENCE),
                    r.get(FINDING.SINCE),
                    Optional.of(r.get(FINDING.ITEM)).filter(i -> !i.isEmpty()).orElse(null),
                    null,
                    r.get(FINDING_ASKED.NOTE),
                    r.get(RIGHT_HERE.REASON)));
  }

  /** Something that is right as it is, in how many sections. */
  record RightRow(
      @NotNull Check check,
      @NotNull String subject,
      @NotNull String words,
      @NotNull String reason,
      @NotNull List<UUID> sections) {}

  /** What is right as it is in sections of a term, and still so. */
  List<RightRow> right(UUID term, SignedIn who) {
    Map<String, RightRow> all = new LinkedHashMap<>();
    db.selectDistinct(
            RIGHT_HERE.CHECK_NAME,
            RIGHT_HERE.SUBJECT,
            RIGHT_HERE.REASON,
            RIGHT_HERE.SECTION_ID,
            FINDING.TITLE)
        .from(RIGHT_HERE)
        .join(FINDING)
        .on(RIGHT_HERE.SECTION_ID.eq(FINDING.SECTION_ID))
        .and(RIGHT_HERE.CHECK_NAME.eq(FINDING.CHECK_NAME))
        .and(RIGHT_HERE.SUBJECT.eq(FINDING.SUBJECT))
        .and(RIGHT_HERE.EVIDENCE.eq(FINDING.EVIDENCE))
        .join(SECTION)
        .on(SECTION.ID.eq(RIGHT_HERE.SECTION_ID))
        .where(SECTION.TERM_ID.eq(term))
        .and(reach.sections(who))
        .orderBy(RIGHT_HERE.CHECK_NAME, RIGHT_HERE.SUBJECT, RIGHT_HERE.REASON)
        .forEach(
            r ->
                all.computeIfAbsent(
                        r.value1() + " " + r.value2() + " " + r.value3(),
                        k ->
                            new RightRow(
                                r.value1(),
                                r.value2(),
                                r.value1().title(r.value5()),
                                r.value3(),
                                new ArrayList<>()))
                    .sections()
                    .add(r.value4()));
    return List.copyOf(all.values());
  }
}
