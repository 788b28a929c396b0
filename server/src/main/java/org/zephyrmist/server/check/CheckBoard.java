package org.zephyrmist.server.check;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.FINDING;
import static org.zephyrmist.server.db.Tables.FINDING_ASKED;
import static org.zephyrmist.server.db.Tables.RIGHT_HERE;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_CHECKED;
import static org.zephyrmist.server.db.Tables.SHELL_READING;
import static org.zephyrmist.server.db.Tables.TERM;

import jakarta.validation.constraints.NotNull;
import java.time.Clock;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.check.Check;
import org.zephyrmist.core.check.CheckGroup;
import org.zephyrmist.core.check.Mend;
import org.zephyrmist.core.check.Weight;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.section.Instructors;

/** How ready the sections of a term are, and what stands in the way. */
@Component
class CheckBoard {
  private final DSLContext db;
  private final Reach reach;
  private final CheckChoices choices;
  private final Instructors instructors;
  private final Clock clock;

  CheckBoard(
      DSLContext db, Reach reach, CheckChoices choices, Instructors instructors, Clock clock) {
    this.db = db;
    this.reach = reach;
    this.choices = choices;
    this.instructors = instructors;
    this.clock = clock;
  }

  /**
   * A section.
   *
   * @param looked whether its shell was ever looked at
   * @param readAt when its shell was read last; absent: never
   * @param worst of what is found there; absent: nothing
   */
  record CheckedSection(
      @NotNull UUID id,
      @NotNull String code,
      @NotNull String course,
      @NotNull String campus,
      @NotNull String instructors,
      boolean looked,
      OffsetDateTime readAt,
      Weight worst) {}

  /**
   * What is found alike in some sections.
   *
   * @param subject names it in calls
   * @param words as people say it
   * @param sections by their places
   * @param asked in how many of them the instructors have been asked
   */
  record CheckRow(
      @NotNull Check check,
      @NotNull Weight weight,
      @NotNull Mend mend,
      @NotNull Check.Whose whose,
      @NotNull String subject,
      @NotNull String words,
      @NotNull String sentence,
      @NotNull List<Integer> sections,
      int asked) {}

  /**
   * @param right sections in which nothing of the group is worse than what can wait
   */
  record CheckedGroup(
      @NotNull CheckGroup group, @NotNull String words, int right, @NotNull List<CheckRow> rows) {}

  /**
   * @param lookedAt when the one was looked at that waits longest; absent: none ever
   * @param since how many more there are than at the end of the last day that was counted; absent:
   *     none was
   * @param rightHere what is right as it is
   */
  record Board(
      @NotNull LocalDate firstDay,
      @NotNull List<CheckedSection> sections,
      @NotNull List<CheckedGroup> groups,
      OffsetDateTime lookedAt,
      Integer since,
      int rightHere) {}

  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  public Board of(UUID term, LocalDate firstDay, SignedIn who) {
    Map<Check, CheckChoices.Choice> chosen = choices.all();
    List<CheckedSection> sections = sections(term, who);
    Map<UUID, Integer> place = new HashMap<>();
    sections.forEach(s -> place.put(s.id(), place.size()));
    Weight[] worst = new Weight[sections.size()];
    Map<CheckGroup, Weight[]> worstOf = new HashMap<>();
    Map<String, CheckRow> rows = new LinkedHashMap<>();
    UUID[] ids = place.keySet().toArray(UUID[]::new);
    db.select(
            FINDING.SECTION_ID,
            FINDING.CHECK_NAME,
            FINDING.SUBJECT,
            FINDING.TITLE,
            FINDING_ASKED.AT)
        .from(FINDING)
        .leftJoin(FINDING_ASKED)
        .on(FINDING_ASKED.SECTION_ID.eq(FINDING.SECTION_ID))
        .and(FINDING_ASKED.CHECK_NAME.eq(FINDING.CHECK_NAME))
        .and(FINDING_ASKED.SUBJECT.eq(FINDING.SUBJECT))
        .where(FINDING.SECTION_ID.eq(DSL.any(ids)))
        .andNotExists(accepted())
        .orderBy(FINDING.SECTION_ID, FINDING.ITEM)
        .forEach(
            r -> {
              Check c = r.value2();
              if (!chosen.get(c).looked()) {
                return;
              }
              int at = place.get(r.value1());
              Weight w = chosen.get(c).weight();
              worst[at] = worse(worst[at], w);
              Weight[] group = worstOf.computeIfAbsent(c.group(), k -> new Weight[sections.size()]);
              group[at] = worse(group[at], w);
              add(rows, c, w, r.value3(), r.value4(), at, r.value5() != null);
            });
    List<CheckedSection> all = new ArrayList<>();
    for (int n = 0; n < sections.size(); n++) {
      CheckedSection s = sections.get(n);
      all.add(
          new CheckedSection(
              s.id(),
              s.code(),
              s.course(),
              s.campus(),
              s.instructors(),
              s.looked(),
              s.readAt(),
              worst[n]));
    }
    return new Board(
        firstDay,
        all,
        groups(all, rows, worstOf),
        lookedAt(ids),
        since(ids),
        db.fetchCount(RIGHT_HERE, RIGHT_HERE.SECTION_ID.eq(DSL.any(ids))));
  }

  private static org.jooq.Select<?> accepted() {
    return DSL.selectOne()
        .from(RIGHT_HERE)
        .where(RIGHT_HERE.SECTION_ID.eq(FINDING.SECTION_ID))
        .and(RIGHT_HERE.CHECK_NAME.eq(FINDING.CHECK_NAME))
        .and(RIGHT_HERE.SUBJECT.eq(FINDING.SUBJECT))
        .and(RIGHT_HERE.EVIDENCE.eq(FINDING.EVIDENCE));
  }

  private static Weight worse(Weight a, Weight b) {
    return a == null || b.compareTo(a) < 0 ? b : a;
  }

  private static void add(
      Map<String, CheckRow> rows,
      Check c,
      Weight w,
      String subject,
      String title,
      int at,
      boolean asked) {
    CheckRow row =
        rows.computeIfAbsent(
            c + " " + subject,
            k ->
                new CheckRow(
                    c,
                    w,
                    c.mend(),
                    c.whose(),
                    subject,
                    c.title(title),
                    c.sentence(),
                    new ArrayList<>(),
                    0));
    boolean fresh = row.sections().isEmpty() || row.sections().get(row.sections().size() - 1) != at;
    if (fresh) {
      row.sections().add(at);
    }
    if (fresh && asked) {
      rows.put(
          c + " " + subject,
          new CheckRow(
              c,
              w,
              row.mend(),
              row.whose(),
              subject,
              row.words(),
              row.sentence(),
              row.sections(),
              row.asked() + 1));
    }
  }

  private static List<CheckedGroup> groups(
      List<CheckedSection> sections,
      Map<String, CheckRow> rows,
      Map<CheckGroup, Weight[]> worstOf) {
    List<CheckedGroup> groups = new ArrayList<>();
    for (CheckGroup g : CheckGroup.values()) {
      Weight[] worst = worstOf.getOrDefault(g, new Weight[sections.size()]);
      int right = 0;
      for (int n = 0; n < worst.length; n++) {
        boolean ready = worst[n] == null || worst[n] == Weight.CAN_WAIT;
        right += ready && sections.get(n).looked() ? 1 : 0;
      }
      groups.add(
          new CheckedGroup(
              g,
              g.words(),
              right,
              rows.values().stream()
                  .filter(r -> r.check().group() == g)
                  .sorted(
                      Comparator.comparing(CheckRow::weight)
                          .thenComparing(r -> -r.sections().size())
                          .thenComparing(CheckRow::words))
                  .toList()));
    }
    return groups;
  }

  private List<CheckedSection> sections(UUID term, SignedIn who) {
    Map<UUID, String> names = instructors.all();
    return db.select(
            SECTION.ID,
            SECTION.CODE,
            COURSE.CODE,
            CAMPUS.NAME,
            SECTION_CHECKED.AT,
            SHELL_READING.READ_AT)
        .from(SECTION)
        .join(COURSE)
        .on(COURSE.ID.eq(SECTION.COURSE_ID))
        .join(CAMPUS)
        .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
        .leftJoin(SECTION_CHECKED)
        .on(SECTION_CHECKED.SECTION_ID.eq(SECTION.ID))
        .leftJoin(SHELL_READING)
        .on(SHELL_READING.SECTION_ID.eq(SECTION.ID))
        .where(SECTION.TERM_ID.eq(term))
        .and(SECTION.IN_ROSTER)
        .and(reach.sections(who))
        .orderBy(SECTION.CODE, SECTION.ID)
        .fetch(
            r ->
                new CheckedSection(
                    r.value1(),
                    r.value2(),
                    r.value3(),
                    r.value4(),
                    names.getOrDefault(r.value1(), ""),
                    r.value5() != null,
                    r.value6(),
                    null));
  }

  private OffsetDateTime lookedAt(UUID[] ids) {
    return db.select(DSL.min(SECTION_CHECKED.AT))
        .from(SECTION_CHECKED)
        .where(SECTION_CHECKED.SECTION_ID.eq(DSL.any(ids)))
        .fetchSingle()
        .value1();
  }

  /** Of the sections that were counted on an earlier day, against the last such day of each. */
  private Integer since(UUID[] ids) {
    return db.fetchSingle(
            "select (sum(t.harm + t.wrong + t.can_wait) - sum(y.harm + y.wrong + y.can_wait))::int"
                + " from checked_day t join lateral (select * from checked_day d where d.section_id"
                + " = t.section_id and d.day < t.day order by d.day desc limit 1) y on true"
                + " where t.section_id = any(?::uuid[]) and t.day = ?::date",
            ids,
            LocalDate.now(clock))
        .get(0, Integer.class);
  }

  /** The first day of a term, for whoever may see it. */
  LocalDate firstDay(UUID term) {
    return db.select(TERM.FIRST_DAY)
        .from(TERM)
        .where(TERM.ID.eq(term))
        .fetchOptional(TERM.FIRST_DAY)
        .orElseThrow(() -> org.zephyrmist.server.web.Refusal.notFound("term"));
  }
}
