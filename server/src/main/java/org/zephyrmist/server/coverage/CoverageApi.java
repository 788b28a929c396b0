package org.zephyrmist.server.coverage;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.COVERAGE_RULE;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.STANDING;
import static org.zephyrmist.server.db.Tables.TERM;
import static org.zephyrmist.server.db.Tables.VERSION;

import jakarta.validation.constraints.NotNull;
import java.time.Clock;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.section.Instructors;

/** The spread and the grid: all sections of a term against all masters expected in them. */
@RestController
@RequestMapping(path = "/api/coverage", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class CoverageApi {
  private final DSLContext db;
  private final Reach reach;
  private final Instructors instructors;
  private final Clock clock;

  CoverageApi(DSLContext db, Reach reach, Instructors instructors, Clock clock) {
    this.db = db;
    this.reach = reach;
    this.instructors = instructors;
    this.clock = clock;
  }

  /**
   * @param week week of the term today, from 1; 0 outside the term
   */
  record TermView(@NotNull UUID id, @NotNull String title, int week, int weeks, int sections) {}

  record CoverageSection(
      @NotNull UUID id,
      @NotNull String code,
      @NotNull String title,
      @NotNull String course,
      @NotNull String campus,
      @NotNull String instructors,
      boolean shell,
      boolean inRoster) {}

  record CoverageVersion(
      @NotNull UUID id, int number, @NotNull String note, @NotNull OffsetDateTime frozenAt) {}

  record CoverageMaster(
      @NotNull UUID id,
      @NotNull String code,
      @NotNull String title,
      boolean everySection,
      @NotNull List<CoverageVersion> versions) {}

  /**
   * A section and a master: by their places in the lists.
   *
   * @param number version held; 0 if never received
   */
  record CoverageCell(
      int section,
      int master,
      int number,
      int expected,
      int held,
      int changed,
      boolean needsPerson) {}

  record Coverage(
      @NotNull List<CoverageSection> sections,
      @NotNull List<CoverageMaster> masters,
      @NotNull List<CoverageCell> cells) {}

  @GetMapping("/terms")
  List<TermView> terms() {
    LocalDate today = LocalDate.now(clock);
    var n = org.jooq.impl.DSL.count(SECTION.ID);
    return db.select(TERM.ID, TERM.TITLE, TERM.FIRST_DAY, TERM.LAST_DAY, n)
        .from(TERM)
        .leftJoin(SECTION)
        .on(SECTION.TERM_ID.eq(TERM.ID))
        .groupBy(TERM.ID)
        .orderBy(TERM.FIRST_DAY.desc())
        .fetch(
            r -> {
              LocalDate first = r.value3();
              boolean inside = !today.isBefore(first) && !today.isAfter(r.value4());
              long week =
                  inside ? java.time.temporal.ChronoUnit.WEEKS.between(first, today) + 1 : 0;
              long weeks = java.time.temporal.ChronoUnit.WEEKS.between(first, r.value4()) + 1;
              return new TermView(r.value1(), r.value2(), (int) week, (int) weeks, r.value5());
            });
  }

  @GetMapping
  Coverage coverage(@RequestParam UUID term, @AuthenticationPrincipal SignedIn who) {
    Map<UUID, String> names = instructors.all();
    List<UUID> courses = new ArrayList<>();
    List<CoverageSection> sections =
        db.select(
                SECTION.ID,
                SECTION.CODE,
                SECTION.TITLE,
                COURSE.CODE,
                CAMPUS.NAME,
                SECTION.SHELL,
                SECTION.IN_ROSTER,
                SECTION.COURSE_ID)
            .from(SECTION)
            .join(COURSE)
            .on(COURSE.ID.eq(SECTION.COURSE_ID))
            .join(CAMPUS)
            .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
            .where(SECTION.TERM_ID.eq(term))
            .and(reach.sections(who))
            .orderBy(COURSE.CODE, SECTION.CODE, SECTION.ID)
            .fetch(
                r -> {
                  courses.add(r.value8());
                  return new CoverageSection(
                      r.value1(),
                      r.value2(),
                      r.value3(),
                      r.value4(),
                      r.value5(),
                      names.getOrDefault(r.value1(), ""),
                      r.value6() != null,
                      r.value7());
                });
    Map<UUID, Set<UUID>> rules = rules();
    List<CoverageMaster> masters = masters(rules, who);
    return new Coverage(sections, masters, cells(sections, courses, masters, rules, term));
  }

  /** Courses by master; a master of every section has a rule without course. */
  private Map<UUID, Set<UUID>> rules() {
    Map<UUID, Set<UUID>> rules = new HashMap<>();
    db.selectFrom(COVERAGE_RULE)
        .forEach(
            r -> rules.computeIfAbsent(r.getMasterId(), k -> new HashSet<>()).add(r.getCourseId()));
    return rules;
  }

  private List<CoverageMaster> masters(Map<UUID, Set<UUID>> rules, SignedIn who) {
    Map<UUID, List<CoverageVersion>> versions = new LinkedHashMap<>();
    db.selectFrom(VERSION)
        .orderBy(VERSION.NUMBER)
        .forEach(
            v ->
                versions
                    .computeIfAbsent(v.getMasterId(), k -> new ArrayList<>())
                    .add(
                        new CoverageVersion(
                            v.getId(), v.getNumber(), v.getNote(), v.getFrozenAt())));
    return db.selectFrom(MASTER)
        .where(reach.masters(who))
        .orderBy(MASTER.PROGRAM_ID.isNotNull(), MASTER.CODE)
        .fetch(
            m ->
                new CoverageMaster(
                    m.getId(),
                    m.getCode(),
                    m.getTitle(),
                    rules.getOrDefault(m.getId(), new HashSet<>()).contains(null),
                    versions.getOrDefault(m.getId(), List.of())));
  }

  private List<CoverageCell> cells(
      List<CoverageSection> sections,
      List<UUID> courses,
      List<CoverageMaster> masters,
      Map<UUID, Set<UUID>> rules,
      UUID term) {
    record Pair(UUID section, UUID master) {}
    record Held(int number, int expected, int held, int changed) {}
    Map<Pair, Held> held = new HashMap<>();
    db.select(
            STANDING.SECTION_ID,
            STANDING.MASTER_ID,
            VERSION.NUMBER,
            STANDING.EXPECTED,
            STANDING.HELD,
            STANDING.CHANGED)
        .from(STANDING)
        .join(VERSION)
        .on(VERSION.ID.eq(STANDING.VERSION_ID))
        .join(SECTION)
        .on(SECTION.ID.eq(STANDING.SECTION_ID))
        .where(SECTION.TERM_ID.eq(term))
        .forEach(
            r ->
                held.put(
                    new Pair(r.value1(), r.value2()),
                    new Held(r.value3(), r.value4(), r.value5(), r.value6())));
    Set<Pair> waiting = new HashSet<>();
    db.selectDistinct(DELIVERY_LINE.SECTION_ID, VERSION.MASTER_ID)
        .from(DELIVERY_LINE)
        .join(DELIVERY)
        .on(DELIVERY.ID.eq(DELIVERY_LINE.DELIVERY_ID))
        .join(VERSION)
        .on(VERSION.ID.eq(DELIVERY.VERSION_ID))
        .where(DELIVERY_LINE.STATE.eq("NEEDS_PERSON"))
        .and(DELIVERY.CONFIRMED_AT.isNotNull())
        .forEach(r -> waiting.add(new Pair(r.value1(), r.value2())));
    List<CoverageCell> cells = new ArrayList<>();
    for (int m = 0; m < masters.size(); m++) {
      CoverageMaster master = masters.get(m);
      Set<UUID> expectedIn = rules.getOrDefault(master.id(), Set.of());
      for (int s = 0; s < sections.size(); s++) {
        Pair pair = new Pair(sections.get(s).id(), master.id());
        Held h = held.get(pair);
        boolean expected =
            !master.versions().isEmpty()
                && (master.everySection() || expectedIn.contains(courses.get(s)));
        if (h != null) {
          cells.add(
              new CoverageCell(
                  s, m, h.number(), h.expected(), h.held(), h.changed(), waiting.contains(pair)));
        } else if (expected) {
          cells.add(new CoverageCell(s, m, 0, 0, 0, 0, waiting.contains(pair)));
        }
      }
    }
    return cells;
  }
}
