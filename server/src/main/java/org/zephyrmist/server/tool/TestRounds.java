package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TERM;
import static org.zephyrmist.server.db.Tables.TEST_ROUND;

import java.time.Clock;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.tool.LinkState.Reason;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;
import org.zephyrmist.server.queue.Queue;
import org.zephyrmist.server.tool.ToolSections.ToolSection;

/** Which launches are to be tested: those that people ask for, and all that work, now and then. */
@Component
class TestRounds implements Job {
  private static final String NAME = "test-round";
  private static final UUID ONE = new UUID(0, 1);
  private final DSLContext db;
  private final ToolSections sections;
  private final ToolHosts hosts;
  private final org.springframework.beans.factory.ObjectProvider<Queue> queue;
  private final Settings settings;
  private final Events events;
  private final Clock clock;

  TestRounds(
      DSLContext db,
      ToolSections sections,
      ToolHosts hosts,
      org.springframework.beans.factory.ObjectProvider<Queue> queue,
      Settings settings,
      Events events,
      Clock clock) {
    this.events = events;
    this.db = db;
    this.sections = sections;
    this.hosts = hosts;
    this.queue = queue;
    this.settings = settings;
    this.clock = clock;
  }

  /**
   * Whether a launch can be tested as the shell makes it, without doing what is somebody else's.
   */
  static boolean testable(ToolHosts.Cell c) {
    if (c.secret() == ToolHosts.Secret.NOT_KEPT) {
      return false;
    }
    boolean through = c.state().stuck().isEmpty() && c.state().connection().isPresent();
    return through || c.state().reason() == Reason.REFUSED;
  }

  /**
   * What was begun.
   *
   * @param testing sections whose launches are tested now
   * @param notYet sections where somebody has to do something first
   */
  record Begun(int testing, int notYet) {}

  /** Tests a host in sections, which have to be within reach. */
  @Transactional
  public Begun begin(String host, List<UUID> asked, SignedIn who) {
    List<ToolHosts.Cell> cells =
        hosts.of(sections.where(SECTION.ID.in(asked))).cells().stream()
            .filter(c -> c.host().equals(host))
            .toList();
    List<ToolHosts.Cell> can = cells.stream().filter(TestRounds::testable).toList();
    want(can, who.id());
    events.add(who.id(), "tests launches of", host, can.size() + " sections", "/tools");
    return new Begun(can.size(), cells.size() - can.size());
  }

  /** What is being tested already is tested once more: things may have changed meanwhile. */
  private void want(List<ToolHosts.Cell> cells, UUID person) {
    UUID round = UUID.randomUUID();
    db.query(
            "insert into test_wanted (section_id, host, person_id, round) select x.s, x.h, ?::uuid,"
                + " ?::uuid from unnest(?::uuid[], ?::text[]) x(s, h) on conflict (section_id, host) do"
                + " update set round = excluded.round, person_id = excluded.person_id",
            person,
            round,
            cells.stream().map(c -> c.section().id()).toArray(UUID[]::new),
            cells.stream().map(ToolHosts.Cell::host).toArray(String[]::new))
        .execute();
    queue.getObject().put(LaunchTests.NAME, List.of(round));
  }

  @Override
  public String name() {
    return NAME;
  }

  @Override
  public Collection<UUID> strays() {
    if (settings.toolTestsEvery().isZero()) {
      return List.of();
    }
    OffsetDateTime before = OffsetDateTime.now(clock).minus(settings.toolTestsEvery());
    boolean due =
        db.fetchExists(TEST_ROUND, TEST_ROUND.BEGAN_AT.isNull().or(TEST_ROUND.BEGAN_AT.lt(before)));
    return due ? List.of(ONE) : List.of();
  }

  /** All that works in terms that go on, or begin within a fortnight. */
  @Override
  public Outcome run(UUID one) {
    LocalDate today = LocalDate.now(clock);
    List<ToolSection> all =
        sections.where(
            TERM.LAST_DAY
                .ge(today)
                .and(TERM.FIRST_DAY.le(today.plusDays(14)))
                .and(SECTION.SHELL.isNotNull()));
    List<ToolHosts.Cell> can = new ArrayList<>();
    hosts.of(all).cells().stream().filter(TestRounds::testable).forEach(can::add);
    db.update(TEST_ROUND).set(TEST_ROUND.BEGAN_AT, OffsetDateTime.now(clock)).execute();
    if (!can.isEmpty()) {
      want(can, null);
      Map<String, Long> hosts =
          can.stream().collect(Collectors.groupingBy(ToolHosts.Cell::host, Collectors.counting()));
      hosts.forEach(
          (host, n) ->
              events.add(null, "tests launches of", host, n + " sections, by itself", "/tools"));
    }
    return Outcome.ENDED;
  }
}
