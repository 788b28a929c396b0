package org.zephyrmist.server.coverage;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TERM;
import static org.zephyrmist.server.db.Tables.VERSION;

import jakarta.validation.constraints.NotNull;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Clock;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.IntStream;
import org.jooq.DSLContext;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.coverage.Expectation;
import org.zephyrmist.core.coverage.SectionWords;
import org.zephyrmist.server.ledger.Standings;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.section.Instructors;
import org.zephyrmist.server.shell.Looks;

/** The spread and the grid: all sections of a term against all masters expected in them. */
@RestController
@RequestMapping(path = "/api/coverage", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class CoverageApi {
  private final DSLContext db;
  private final Reach reach;
  private final Instructors instructors;
  private final Standings standings;
  private final WaitingLines waiting;
  private final Rules rules;
  private final Looks looks;
  private final Clock clock;

  CoverageApi(
      DSLContext db,
      Reach reach,
      Instructors instructors,
      Standings standings,
      WaitingLines waiting,
      Rules rules,
      Looks looks,
      Clock clock) {
    this.looks = looks;
    this.rules = rules;
    this.waiting = waiting;
    this.db = db;
    this.reach = reach;
    this.instructors = instructors;
    this.standings = standings;
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
   * A master and the sections that hold it or should, as columns of equal length in the order of
   * the sections.
   *
   * @param section places in the list of sections, from 0
   * @param number versions held; 0 if never received
   * @param expected items that the version brings
   * @param held of these, how many are there
   * @param changed items that were changed in the section
   * @param wanted version that is expected: the newest, or the one that a coverage rule pins
   * @param needsPerson places of sections where a delivery waits for a person
   */
  record CoverageStandings(
      @NotNull int[] section,
      @NotNull int[] number,
      @NotNull int[] expected,
      @NotNull int[] held,
      @NotNull int[] changed,
      @NotNull int[] wanted,
      @NotNull int[] needsPerson) {}

  /**
   * @param standings one for each master, in their order
   * @param unread places of sections whose shells could not be read, all of it or items
   */
  record Coverage(
      @NotNull List<CoverageSection> sections,
      @NotNull List<CoverageMaster> masters,
      @NotNull List<CoverageStandings> standings,
      @NotNull int[] unread) {}

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

  /** All of one moment. */
  @GetMapping
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  public Coverage coverage(@RequestParam UUID term, @AuthenticationPrincipal SignedIn who) {
    Rows rows = rows(term, who);
    Map<UUID, int[]> wanted = rules.wanted(rows.board());
    Map<UUID, List<CoverageVersion>> versions = versions();
    List<CoverageMaster> masters = masters(versions, who);
    Map<UUID, Standings.Held> byId = new HashMap<>();
    versions.forEach(
        (m, of) -> of.forEach(v -> byId.put(v.id(), new Standings.Held(m, v.number()))));
    Standings.Term of = standings.of(rows.held, byId);
    Map<UUID, boolean[]> waits = waiting.of(term, rows.place);
    return new Coverage(
        rows.sections,
        masters,
        masters.stream()
            .map(
                m ->
                    columns(
                        of.of(m.id()),
                        waits.getOrDefault(m.id(), new boolean[rows.sections.size()]),
                        Optional.ofNullable(m.versions().isEmpty() ? null : wanted.get(m.id())),
                        m.versions().size()))
            .toList(),
        looks.unreadIn(term).stream()
            .map(rows.place::get)
            .filter(Objects::nonNull)
            .mapToInt(p -> p)
            .sorted()
            .toArray());
  }

  /**
   * All that is to be said of a master: with the sections that never received it though they
   * should, or whose first delivery waits.
   *
   * @param wanted what is expected of each section; none if nothing is of any
   * @param newest number of the newest version
   */
  private static CoverageStandings columns(
      Standings.Column c, boolean[] waits, Optional<int[]> wanted, int newest) {
    int[] of = wanted.orElseGet(() -> none(waits.length));
    int[] at =
        IntStream.range(0, waits.length)
            .filter(s -> c.number()[s] > 0 || waits[s] || of[s] != Expectation.NONE)
            .toArray();
    return new CoverageStandings(
        at,
        values(at, c.number()),
        values(at, c.expected()),
        values(at, c.held()),
        values(at, c.changed()),
        IntStream.of(at).map(s -> of[s] > 0 ? of[s] : newest).toArray(),
        IntStream.of(at).filter(s -> waits[s]).toArray());
  }

  private static int[] none(int sections) {
    int[] none = new int[sections];
    Arrays.fill(none, Expectation.NONE);
    return none;
  }

  private static int[] values(int[] at, int[] column) {
    return IntStream.of(at).map(s -> column[s]).toArray();
  }

  /** Sections of a term in their order, with what belongs to each at the same place. */
  private static final class Rows {
    private final List<CoverageSection> sections = new ArrayList<>();
    private final List<UUID> courses = new ArrayList<>();
    private final List<byte[]> held = new ArrayList<>();
    private final Map<UUID, Integer> place = new HashMap<>();

    Rules.Board board() {
      return new Rules.Board(
          sections.stream().map(CoverageSection::id).toList(),
          courses,
          () -> sections.stream().map(Rows::words).toList());
    }

    private static SectionWords words(CoverageSection s) {
      return new SectionWords(
          s.code(), s.title(), s.course(), s.campus(), List.of(s.instructors().split(", ")));
    }
  }

  private Rows rows(UUID term, SignedIn who) {
    Map<UUID, String> names = instructors.all();
    Rows rows = new Rows();
    Standings.Packed packed = standings.packed(term);
    var query =
        db.select(
                SECTION.ID,
                SECTION.CODE,
                SECTION.TITLE,
                COURSE.CODE,
                CAMPUS.NAME,
                SECTION.SHELL,
                SECTION.IN_ROSTER,
                SECTION.COURSE_ID,
                packed.field())
            .from(SECTION)
            .join(COURSE)
            .on(COURSE.ID.eq(SECTION.COURSE_ID))
            .join(CAMPUS)
            .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
            .leftJoin(packed.table())
            .on(packed.on())
            .where(SECTION.TERM_ID.eq(term))
            .and(reach.sections(who))
            .orderBy(COURSE.CODE, SECTION.CODE, SECTION.ID);
    try (ResultSet r = query.fetchResultSet()) { // ten thousand records would take half the time
      while (r.next()) {
        UUID id = r.getObject(1, UUID.class);
        rows.place.put(id, rows.sections.size());
        rows.courses.add(r.getObject(8, UUID.class));
        rows.held.add(r.getBytes(9));
        rows.sections.add(
            new CoverageSection(
                id,
                r.getString(2),
                r.getString(3),
                r.getString(4),
                r.getString(5),
                names.getOrDefault(id, ""),
                r.getString(6) != null,
                r.getBoolean(7)));
      }
    } catch (SQLException e) {
      throw new DataAccessResourceFailureException("Sections of a term", e);
    }
    return rows;
  }

  private Map<UUID, List<CoverageVersion>> versions() {
    Map<UUID, List<CoverageVersion>> versions = new HashMap<>();
    db.selectFrom(VERSION)
        .orderBy(VERSION.NUMBER)
        .forEach(
            v ->
                versions
                    .computeIfAbsent(v.getMasterId(), k -> new ArrayList<>())
                    .add(
                        new CoverageVersion(
                            v.getId(), v.getNumber(), v.getNote(), v.getFrozenAt())));
    return versions;
  }

  private List<CoverageMaster> masters(Map<UUID, List<CoverageVersion>> versions, SignedIn who) {
    Set<UUID> everywhere = rules.everywhere();
    return db.selectFrom(MASTER)
        .where(reach.masters(who))
        .and(MASTER.RETIRED_AT.isNull())
        .orderBy(MASTER.PROGRAM_ID.isNotNull(), MASTER.CODE)
        .fetch(
            m ->
                new CoverageMaster(
                    m.getId(),
                    m.getCode(),
                    m.getTitle(),
                    everywhere.contains(m.getId()),
                    versions.getOrDefault(m.getId(), List.of())));
  }
}
