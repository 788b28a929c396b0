package org.zephyrmist.server.coverage;

import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.COVERAGE_RULE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PROGRAM;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_SET;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.coverage.Expectation;
import org.zephyrmist.core.coverage.Expectation.Scope;
import org.zephyrmist.core.coverage.SectionWords;
import org.zephyrmist.server.db.tables.records.CoverageRuleRecord;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Which sections ought to hold which master, at which version. */
@Component
public class Rules {
  private final DSLContext db;
  private final Reach reach;
  private final SectionSets sets;
  private final Events events;

  Rules(DSLContext db, Reach reach, SectionSets sets, Events events) {
    this.db = db;
    this.reach = reach;
    this.sets = sets;
    this.events = events;
  }

  /** Sections in their order: the ids, the courses, and what is said of each. */
  record Board(List<UUID> ids, List<UUID> courses, Supplier<List<SectionWords>> words) {}

  /**
   * What is expected of the sections of a board, by master; masters without a rule are left out.
   *
   * @return see {@link Expectation#of}
   */
  Map<UUID, int[]> wanted(Board board) {
    Map<UUID, List<Expectation.Rule>> rules = new HashMap<>();
    at(board).forEach((r, places) -> add(rules, r, places));
    Map<UUID, int[]> wanted = new HashMap<>();
    rules.forEach((master, of) -> wanted.put(master, Expectation.of(board.ids().size(), of)));
    return wanted;
  }

  /** Masters that every section is expected to hold. */
  Set<UUID> everywhere() {
    return db.select(COVERAGE_RULE.MASTER_ID)
        .from(COVERAGE_RULE)
        .where(COVERAGE_RULE.COURSE_ID.isNull())
        .and(COVERAGE_RULE.SET_ID.isNull())
        .and(COVERAGE_RULE.PROGRAM_ID.isNull())
        .fetchSet(COVERAGE_RULE.MASTER_ID);
  }

  private static void add(
      Map<UUID, List<Expectation.Rule>> rules, CoverageRuleRecord r, int[] places) {
    int pinned = Optional.ofNullable(r.getPinned()).orElse(Expectation.NEWEST);
    rules
        .computeIfAbsent(r.getMasterId(), k -> new ArrayList<>())
        .add(new Expectation.Rule(scope(r), pinned, places));
  }

  private static Scope scope(CoverageRuleRecord r) {
    if (r.getSetId() != null) {
      return Scope.SET;
    } else if (r.getCourseId() != null) {
      return Scope.COURSE;
    }
    return r.getProgramId() != null ? Scope.PROGRAM : Scope.EVERY_SECTION;
  }

  /** All rules, with the places of the sections that each is about. */
  private Map<CoverageRuleRecord, int[]> at(Board board) {
    List<CoverageRuleRecord> rules =
        db.select(COVERAGE_RULE.fields())
            .from(COVERAGE_RULE)
            .join(MASTER)
            .on(MASTER.ID.eq(COVERAGE_RULE.MASTER_ID))
            .where(MASTER.RETIRED_AT.isNull())
            .fetchInto(COVERAGE_RULE);
    Map<UUID, int[]> bySet =
        rules.stream().anyMatch(r -> r.getSetId() != null) ? bySet(board) : Map.of();
    int[] every = IntStream.range(0, board.ids().size()).toArray();
    Map<UUID, List<Integer>> byCourse = new HashMap<>();
    for (int s : every) {
      byCourse.computeIfAbsent(board.courses().get(s), k -> new ArrayList<>()).add(s);
    }
    Map<UUID, UUID> programs =
        rules.stream().anyMatch(r -> r.getProgramId() != null) ? programs() : Map.of();
    Map<CoverageRuleRecord, int[]> all = new HashMap<>();
    for (CoverageRuleRecord r : rules) {
      int[] about =
          switch (scope(r)) {
            case EVERY_SECTION, PROGRAM -> every;
            case COURSE -> ints(byCourse.getOrDefault(r.getCourseId(), List.of()));
            case SET -> bySet.getOrDefault(r.getSetId(), new int[0]);
          };
      UUID program = r.getProgramId();
      all.put(
          r,
          program == null
              ? about
              : IntStream.of(about)
                  .filter(s -> program.equals(programs.get(board.courses().get(s))))
                  .toArray());
    }
    return all;
  }

  /** By course. */
  private Map<UUID, UUID> programs() {
    return db.select(COURSE.ID, COURSE.PROGRAM_ID)
        .from(COURSE)
        .fetchMap(COURSE.ID, COURSE.PROGRAM_ID);
  }

  private static int[] ints(List<Integer> of) {
    return of.stream().mapToInt(i -> i).toArray();
  }

  private Map<UUID, int[]> bySet(Board board) {
    Map<UUID, Integer> place = new HashMap<>();
    List<SectionSets.Said> said = new ArrayList<>();
    List<SectionWords> words = board.words().get();
    for (int s = 0; s < words.size(); s++) {
      UUID id = board.ids().get(s);
      place.put(id, s);
      said.add(new SectionSets.Said(id, board.courses().get(s), words.get(s)));
    }
    Map<UUID, int[]> all = new HashMap<>();
    sets.among(said).forEach((set, of) -> all.put(set, of.stream().mapToInt(place::get).toArray()));
    return all;
  }

  private Board board(Condition which) {
    List<SectionSets.Said> said = sets.said(which);
    return new Board(
        said.stream().map(SectionSets.Said::id).toList(),
        said.stream().map(SectionSets.Said::course).toList(),
        () -> said.stream().map(SectionSets.Said::words).toList());
  }

  /** Those of these sections that no rule of the master names; none if it has no rule. */
  public Set<UUID> unexpected(UUID master, List<UUID> sections) {
    Board board = board(SECTION.ID.in(sections));
    Optional<int[]> wanted = Optional.ofNullable(wanted(board).get(master));
    return IntStream.range(0, wanted.isEmpty() ? 0 : board.ids().size())
        .filter(s -> wanted.get()[s] == Expectation.NONE)
        .mapToObj(board.ids()::get)
        .collect(Collectors.toSet());
  }

  /**
   * At which version, by its number, sections ought to hold a master, by master and section. A
   * master without a version is expected of nobody.
   */
  public Map<UUID, Map<UUID, Integer>> versions(Condition sections) {
    Board board = board(sections);
    Map<UUID, Integer> newest =
        db.select(VERSION.MASTER_ID, DSL.max(VERSION.NUMBER))
            .from(VERSION)
            .groupBy(VERSION.MASTER_ID)
            .fetchMap(r -> r.value1(), r -> r.value2());
    Map<UUID, Map<UUID, Integer>> all = new HashMap<>();
    wanted(board)
        .forEach(
            (master, at) -> {
              Map<UUID, Integer> of = new HashMap<>();
              for (int s = 0; s < at.length && newest.containsKey(master); s++) {
                if (at[s] != Expectation.NONE) {
                  of.put(
                      board.ids().get(s), at[s] == Expectation.NEWEST ? newest.get(master) : at[s]);
                }
              }
              all.put(master, of);
            });
    return all;
  }

  /** Which of these sections ought to hold a master, by master. */
  public Map<UUID, Set<UUID>> expecting(Condition sections) {
    Board board = board(sections);
    Map<UUID, Set<UUID>> all = new HashMap<>();
    wanted(board)
        .forEach(
            (master, at) ->
                all.put(
                    master,
                    IntStream.range(0, at.length)
                        .filter(s -> at[s] != Expectation.NONE)
                        .mapToObj(board.ids()::get)
                        .collect(Collectors.toSet())));
    return all;
  }

  /** Rules of masters within reach, with how many sections of a term each is about. */
  List<RuleApi.CoverageRule> list(UUID term, SignedIn who) {
    Field<Boolean> yours = may(who);
    Board board = board(SECTION.TERM_ID.eq(term).and(reach.sections(who)));
    Map<UUID, Integer> count = new HashMap<>();
    at(board).forEach((r, places) -> count.put(r.getId(), places.length));
    return db.select(COVERAGE_RULE.fields())
        .select(MASTER.CODE, MASTER.TITLE, COURSE.CODE, SECTION_SET.NAME, PROGRAM.NAME)
        .select(yours)
        .from(COVERAGE_RULE)
        .join(MASTER)
        .on(MASTER.ID.eq(COVERAGE_RULE.MASTER_ID))
        .leftJoin(COURSE)
        .on(COURSE.ID.eq(COVERAGE_RULE.COURSE_ID))
        .leftJoin(SECTION_SET)
        .on(SECTION_SET.ID.eq(COVERAGE_RULE.SET_ID))
        .leftJoin(PROGRAM)
        .on(PROGRAM.ID.eq(COVERAGE_RULE.PROGRAM_ID))
        .where(reach.masters(who))
        .and(MASTER.RETIRED_AT.isNull())
        .orderBy(
            MASTER.PROGRAM_ID.isNotNull(), MASTER.CODE, PROGRAM.NAME, COURSE.CODE, SECTION_SET.NAME)
        .fetch(
            r ->
                new RuleApi.CoverageRule(
                    r.get(COVERAGE_RULE.ID),
                    r.get(COVERAGE_RULE.MASTER_ID),
                    r.get(MASTER.CODE),
                    r.get(MASTER.TITLE),
                    scope(r.into(COVERAGE_RULE)),
                    r.get(COURSE.CODE),
                    r.get(SECTION_SET.NAME),
                    r.get(PROGRAM.NAME),
                    r.get(COVERAGE_RULE.PINNED),
                    count.getOrDefault(r.get(COVERAGE_RULE.ID), 0),
                    r.get(yours)));
  }

  /**
   * On a rule and its master: whether a person may change it, which is so where it reaches no
   * further than they do.
   */
  private Field<Boolean> may(SignedIn who) {
    if (reach.everything(who)) {
      return DSL.inline(true);
    }
    Condition within =
        reach
            .program(who, COVERAGE_RULE.PROGRAM_ID)
            .or(
                COVERAGE_RULE.COURSE_ID.in(
                    DSL.select(COURSE.ID)
                        .from(COURSE)
                        .where(reach.program(who, COURSE.PROGRAM_ID))));
    return DSL.coalesce(DSL.field(reach.changes(who).and(within)), false);
  }

  /**
   * A rule as it is to be made; about neither a course nor a set: about every section, as far as
   * its maker reaches.
   */
  public record Wanted(
      UUID master,
      Optional<UUID> program,
      Optional<UUID> course,
      Optional<UUID> set,
      Optional<Integer> pinned) {}

  @Transactional
  public UUID add(Wanted n, SignedIn who) {
    String code = changed(n.master(), who);
    Integer pinned = n.pinned().orElse(null);
    pinnable(n.master(), pinned);
    if (n.course().isPresent() && n.set().isPresent()) {
      throw Refusal.bad("A rule is about a course or about a set.", "Choose one of them.");
    }
    n.course().ifPresent(c -> course(c, who));
    n.set().ifPresent(this::set);
    Optional<UUID> program =
        n.course().isPresent() ? Optional.empty() : reach.bound(n.program(), who);
    UUID id = UUID.randomUUID();
    try {
      db.insertInto(COVERAGE_RULE)
          .set(COVERAGE_RULE.ID, id)
          .set(COVERAGE_RULE.MASTER_ID, n.master())
          .set(COVERAGE_RULE.COURSE_ID, n.course().orElse(null))
          .set(COVERAGE_RULE.SET_ID, n.set().orElse(null))
          .set(COVERAGE_RULE.PROGRAM_ID, program.orElse(null))
          .set(COVERAGE_RULE.PINNED, pinned)
          .execute();
    } catch (DuplicateKeyException e) {
      throw new Refusal(
          HttpStatus.CONFLICT, "There is such a rule.", "Change the version that it expects.");
    }
    events.add(who.id(), "made a coverage rule for", code, version(pinned));
    return id;
  }

  private void course(UUID course, SignedIn who) {
    if (!db.fetchExists(COURSE, COURSE.ID.eq(course).and(reach.program(who, COURSE.PROGRAM_ID)))) {
      throw Refusal.notFound("course");
    }
  }

  private void set(UUID set) {
    if (!db.fetchExists(SECTION_SET, SECTION_SET.ID.eq(set))) {
      throw Refusal.notFound("set");
    }
  }

  @Transactional
  public void pin(UUID rule, Integer pinned, SignedIn who) {
    CoverageRuleRecord r = own(rule, who);
    pinnable(r.getMasterId(), pinned);
    db.update(COVERAGE_RULE)
        .set(COVERAGE_RULE.PINNED, pinned)
        .where(COVERAGE_RULE.ID.eq(rule))
        .execute();
    events.add(
        who.id(), "changed a coverage rule for", master(r.getMasterId(), who), version(pinned));
  }

  @Transactional
  public void end(UUID rule, SignedIn who) {
    CoverageRuleRecord r = own(rule, who);
    db.deleteFrom(COVERAGE_RULE).where(COVERAGE_RULE.ID.eq(rule)).execute();
    events.add(who.id(), "ended a coverage rule for", master(r.getMasterId(), who), "");
  }

  private static String version(Integer pinned) {
    return pinned == null ? "newest version" : "version " + pinned;
  }

  /** A rule that this person may change. */
  private CoverageRuleRecord own(UUID rule, SignedIn who) {
    Field<Boolean> mine = may(who);
    return db.select(COVERAGE_RULE.fields())
        .select(mine)
        .from(COVERAGE_RULE)
        .join(MASTER)
        .on(MASTER.ID.eq(COVERAGE_RULE.MASTER_ID))
        .where(COVERAGE_RULE.ID.eq(rule))
        .and(reach.masters(who))
        .fetchOptional(
            r -> {
              if (!r.get(mine)) {
                throw new Refusal(
                    HttpStatus.FORBIDDEN,
                    "This rule reaches further than your programs.",
                    "Who made it, or an administrator, changes it.");
              }
              return r.into(COVERAGE_RULE);
            })
        .orElseThrow(() -> Refusal.notFound("rule"));
  }

  /** The code of a master whose rules this person may change. */
  private String changed(UUID master, SignedIn who) {
    String code = master(master, who);
    if (!db.fetchExists(MASTER, MASTER.ID.eq(master).and(reach.changes(who)))) {
      throw new Refusal(
          HttpStatus.FORBIDDEN,
          code + " is the whole college's.",
          "An administrator says where it is expected, or names you.");
    }
    return code;
  }

  private String master(UUID master, SignedIn who) {
    return db.select(MASTER.CODE)
        .from(MASTER)
        .where(MASTER.ID.eq(master))
        .and(reach.masters(who))
        .fetchOptional(MASTER.CODE)
        .orElseThrow(() -> Refusal.notFound("master"));
  }

  private void pinnable(UUID master, Integer pinned) {
    if (pinned == null) {
      return;
    }
    Integer newest =
        db.select(DSL.max(VERSION.NUMBER))
            .from(VERSION)
            .where(VERSION.MASTER_ID.eq(master))
            .fetchSingle()
            .value1();
    if (newest == null || pinned > newest) {
      throw Refusal.bad("This master has no version " + pinned + ".", "Choose one that is frozen.");
    }
  }
}
