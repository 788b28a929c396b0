package org.zephyrmist.server.handover;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.FINDING;
import static org.zephyrmist.server.db.Tables.FINDING_ASKED;
import static org.zephyrmist.server.db.Tables.HAND_OVER;
import static org.zephyrmist.server.db.Tables.HAND_OVER_STEPS;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.PLATFORM;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SHELL_OPENING;
import static org.zephyrmist.server.db.Tables.TERM;

import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.WaitsFor;
import org.zephyrmist.core.handover.Due;
import org.zephyrmist.core.handover.HandOverKind;
import org.zephyrmist.core.handover.Steps;
import org.zephyrmist.server.tool.ToolSteps;
import org.zephyrmist.server.tool.ToolSteps.ToolStep;

/** What others have to do, as it follows from what waits for it, with what people added. */
@Component
class HandOvers {
  private final DSLContext db;
  private final ToolSteps tools;

  HandOvers(DSLContext db, ToolSteps tools) {
    this.db = db;
    this.tools = tools;
  }

  /** A section as hand-overs name it. */
  record At(
      UUID id,
      String code,
      String title,
      String campus,
      Optional<UUID> platform,
      String platformName,
      Optional<LocalDate> firstDay) {}

  /** What people added. */
  record Added(
      Optional<UUID> owner,
      String ownerName,
      String ownerMail,
      Optional<LocalDate> due,
      String note,
      Optional<OffsetDateTime> reminded) {
    static final Added NOTHING =
        new Added(Optional.empty(), "", "", Optional.empty(), "", Optional.empty());
  }

  /** One hand-over. */
  record HandOver(ToolStep step, At section, Added added, Due due, Optional<Steps> steps) {
    HandOverKind kind() {
      return step.kind();
    }

    String host() {
      return step.host();
    }
  }

  /**
   * In the order of their sections.
   *
   * @param which rows of {@code section}
   */
  List<HandOver> of(Condition which) {
    Map<UUID, At> at = sections(which);
    Condition these = SECTION.ID.eq(DSL.any(at.keySet().toArray(UUID[]::new)));
    List<ToolStep> all = new ArrayList<>(lines(these));
    all.addAll(tools.of(these));
    all.addAll(asked(these));
    all.addAll(unopened(these));
    Map<String, Added> added = added(at.keySet().toArray(UUID[]::new));
    List<Steps> steps = steps();
    List<HandOver> found = new ArrayList<>();
    for (ToolStep s : all) {
      At section = at.get(s.section());
      Added a = added.getOrDefault(key(s.kind(), s.section(), s.host()), Added.NOTHING);
      String platform = section.platform().map(UUID::toString).orElse("");
      found.add(
          new HandOver(
              s,
              section,
              a,
              new Due(a.due(), section.firstDay()),
              Steps.of(steps, s.kind(), platform, s.host())));
    }
    found.sort(Comparator.comparing(h -> h.section().code()));
    return found;
  }

  private static String key(HandOverKind kind, UUID section, String host) {
    return kind + " " + section + " " + host;
  }

  private Map<UUID, At> sections(Condition which) {
    Map<UUID, At> all = new HashMap<>();
    db.select(
            SECTION.ID,
            SECTION.CODE,
            SECTION.TITLE,
            CAMPUS.NAME,
            SECTION.PLATFORM_ID,
            TERM.FIRST_DAY,
            PLATFORM.NAME)
        .from(SECTION)
        .join(CAMPUS)
        .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
        .leftJoin(TERM)
        .on(TERM.ID.eq(SECTION.TERM_ID))
        .leftJoin(PLATFORM)
        .on(PLATFORM.ID.eq(SECTION.PLATFORM_ID))
        .where(which)
        .forEach(
            r ->
                all.put(
                    r.value1(),
                    new At(
                        r.value1(),
                        r.value2(),
                        r.value3(),
                        r.value4(),
                        Optional.ofNullable(r.value5()),
                        Optional.ofNullable(r.value7()).orElse(""),
                        Optional.ofNullable(r.value6()))));
    return all;
  }

  /** Lines that wait for a shell, or for an empty one. */
  private List<ToolStep> lines(Condition these) {
    return db.selectDistinct(SECTION.ID, DELIVERY_LINE.WAITS_FOR)
        .from(DELIVERY_LINE)
        .join(SECTION)
        .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
        .where(these)
        .and(DELIVERY_LINE.STATE.eq(LineState.NOT_YET))
        .and(DELIVERY_LINE.WAITS_FOR.in(WaitsFor.SHELL, WaitsFor.EMPTY))
        .fetch(
            r ->
                new ToolStep(
                    r.value2() == WaitsFor.SHELL
                        ? HandOverKind.CREATE_SHELL
                        : HandOverKind.CLEAR_SHELL,
                    r.value1(),
                    "",
                    "",
                    Optional.empty(),
                    false));
  }

  /** What checks find and instructors were asked for. */
  private List<ToolStep> asked(Condition these) {
    return db.selectDistinct(
            SECTION.ID,
            FINDING_ASKED.CHECK_NAME,
            FINDING_ASKED.SUBJECT,
            DSL.min(FINDING.TITLE).over().partitionBy(FINDING.CHECK_NAME, FINDING.SUBJECT))
        .from(FINDING_ASKED)
        .join(FINDING)
        .on(FINDING.SECTION_ID.eq(FINDING_ASKED.SECTION_ID))
        .and(FINDING.CHECK_NAME.eq(FINDING_ASKED.CHECK_NAME))
        .and(FINDING.SUBJECT.eq(FINDING_ASKED.SUBJECT))
        .join(SECTION)
        .on(SECTION.ID.eq(FINDING_ASKED.SECTION_ID))
        .where(these)
        .fetch(
            r ->
                new ToolStep(
                    HandOverKind.PUT_RIGHT,
                    r.value1(),
                    r.value2() + " " + r.value3(),
                    r.value2().title(r.value4()),
                    Optional.empty(),
                    false));
  }

  /** Shells that could not be opened by us. */
  private List<ToolStep> unopened(Condition these) {
    return db.select(SECTION.ID)
        .from(SHELL_OPENING)
        .join(SECTION)
        .on(SECTION.ID.eq(SHELL_OPENING.SECTION_ID))
        .where(these)
        .and(SHELL_OPENING.PROBLEM.isNotNull())
        .fetch(
            r ->
                new ToolStep(HandOverKind.OPEN_SHELL, r.value1(), "", "", Optional.empty(), false));
  }

  private Map<String, Added> added(UUID[] sections) {
    Map<String, Added> all = new HashMap<>();
    db.select(HAND_OVER.fields())
        .select(PERSON.NAME, PERSON.EMAIL)
        .from(HAND_OVER)
        .leftJoin(PERSON)
        .on(PERSON.ID.eq(HAND_OVER.OWNER_ID))
        .where(HAND_OVER.SECTION_ID.eq(DSL.any(sections)))
        .forEach(
            r ->
                all.put(
                    key(r.get(HAND_OVER.KIND), r.get(HAND_OVER.SECTION_ID), r.get(HAND_OVER.HOST)),
                    new Added(
                        Optional.ofNullable(r.get(HAND_OVER.OWNER_ID)),
                        Optional.ofNullable(r.get(PERSON.NAME)).orElse(""),
                        Optional.ofNullable(r.get(PERSON.EMAIL)).orElse(""),
                        Optional.ofNullable(r.get(HAND_OVER.DUE)),
                        r.get(HAND_OVER.NOTE),
                        Optional.ofNullable(r.get(HAND_OVER.REMINDED_AT)))));
    return all;
  }

  private List<Steps> steps() {
    return db.selectFrom(HAND_OVER_STEPS)
        .fetch(
            r ->
                new Steps(
                    r.getKind(),
                    r.getPlatformId() == null ? "" : r.getPlatformId().toString(),
                    r.getHost(),
                    r.getSteps(),
                    r.getContact()));
  }
}
