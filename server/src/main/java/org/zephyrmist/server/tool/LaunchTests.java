package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.LAUNCH_TEST;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TEST_WANTED;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.tool.BasicLaunch;
import org.zephyrmist.core.tool.BasicLaunch.Role;
import org.zephyrmist.core.tool.LaunchPair;
import org.zephyrmist.core.tool.RelinkRule.Link;
import org.zephyrmist.core.tool.Way;
import org.zephyrmist.server.db.tables.records.TestWantedRecord;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;
import org.zephyrmist.server.tool.ToolLaunches.Answered;
import org.zephyrmist.server.tool.ToolSections.ToolSection;

/**
 * Launches tools of sections as an instructor and as a student, several at a time, and keeps what
 * came of it. Only where all stages are reached, so that a test does nobody's first opening.
 */
@Component
class LaunchTests implements Job {
  static final String NAME = "test-launches";
  private static final int AT_ONCE = 8;
  private static final int BATCH = 2000;
  private static final int KEPT_AT_ONCE = 100;
  private final ExecutorService workers = Executors.newFixedThreadPool(AT_ONCE);
  private final DSLContext db;
  private final ToolSections sections;
  private final ToolHosts hosts;
  private final ToolConnections connections;
  private final ToolLaunches launches;
  private final KnownLinks links;
  private final StoppedTools stopped;
  private final TransactionTemplate transaction;
  private final Clock clock;

  LaunchTests(
      DSLContext db,
      ToolSections sections,
      ToolHosts hosts,
      ToolConnections connections,
      ToolLaunches launches,
      KnownLinks links,
      StoppedTools stopped,
      TransactionTemplate transaction,
      Clock clock) {
    this.db = db;
    this.sections = sections;
    this.hosts = hosts;
    this.connections = connections;
    this.launches = launches;
    this.links = links;
    this.stopped = stopped;
    this.transaction = transaction;
    this.clock = clock;
  }

  @PreDestroy
  void end() {
    workers.shutdownNow();
  }

  /** A launch in a section, as whom, and what came of it. */
  record Tested(ToolSection section, String host, UUID connection, Role role, Answered answered) {}

  @Override
  public String name() {
    return NAME;
  }

  @Override
  public Collection<UUID> strays() {
    return db.selectDistinct(TEST_WANTED.ROUND).from(TEST_WANTED).fetch(TEST_WANTED.ROUND);
  }

  @Override
  public Outcome run(UUID round) {
    SilentTools silent = new SilentTools(AT_ONCE);
    List<TestWantedRecord> wanted = next(round);
    while (!wanted.isEmpty()) {
      test(wanted, round, silent);
      wanted = next(round);
    }
    stopped.tell(round);
    return Outcome.ENDED;
  }

  private List<TestWantedRecord> next(UUID round) {
    return db.selectFrom(TEST_WANTED)
        .where(TEST_WANTED.ROUND.eq(round))
        .orderBy(TEST_WANTED.HOST, TEST_WANTED.SECTION_ID)
        .limit(BATCH)
        .fetch();
  }

  private void test(List<TestWantedRecord> wanted, UUID round, SilentTools silent) {
    Map<String, UUID> asked = new HashMap<>();
    wanted.forEach(w -> asked.put(w.getSectionId() + w.getHost(), w.getPersonId()));
    Map<String, CompletableFuture<List<Tested>>> under = new HashMap<>();
    List<ToolSection> at =
        sections.where(SECTION.ID.in(wanted.stream().map(w -> w.getSectionId()).toList()));
    Map<String, KnownConnection> known = new HashMap<>();
    connections.all().forEach(c -> known.put(c.connection().id(), c));
    Map<String, Optional<Signer>> secrets = new HashMap<>();
    Map<String, Link> any = new HashMap<>();
    wanted.forEach(w -> any.computeIfAbsent(w.getHost(), links::any));
    for (ToolHosts.Cell c : hosts.of(at).cells()) {
      if (asked.containsKey(c.section().id() + c.host()) && TestRounds.testable(c)) {
        KnownConnection k = known.get(c.state().connection().orElseThrow().id());
        Optional<Signer> signer = signer(k, c, secrets);
        under.put(
            c.section().id() + c.host(),
            CompletableFuture.supplyAsync(
                () -> both(c, any.get(c.host()), k, signer, silent), workers));
      }
    }
    // what is done is kept while the others go on
    for (int i = 0; i < wanted.size(); i += KEPT_AT_ONCE) {
      List<TestWantedRecord> some = wanted.subList(i, Math.min(wanted.size(), i + KEPT_AT_ONCE));
      List<Tested> done =
          some.stream()
              .map(w -> under.get(w.getSectionId() + w.getHost()))
              .filter(Objects::nonNull)
              .flatMap(f -> f.join().stream())
              .toList();
      transaction.executeWithoutResult(
          t -> {
            keep(done, asked, round);
            done(some, round);
          });
    }
  }

  /** Launches one link of a section now. */
  List<Tested> now(ToolHosts.Cell c, Link link, UUID person) {
    UUID id = UUID.fromString(c.state().connection().orElseThrow().id());
    KnownConnection k =
        connections.all().stream()
            .filter(x -> x.connection().id().equals(id.toString()))
            .findFirst()
            .orElseThrow();
    Optional<Signer> signer = signer(k, c, new HashMap<>());
    List<Tested> done = both(c, link, k, signer, new SilentTools(1));
    Map<String, UUID> asked = Map.of(c.section().id() + c.host(), person);
    transaction.executeWithoutResult(t -> keep(done, asked, UUID.randomUUID()));
    return done;
  }

  /** But for those that a later round wants as well. */
  private void done(List<TestWantedRecord> wanted, UUID round) {
    db.query(
            "delete from test_wanted w using unnest(?::uuid[], ?::text[]) x(s, h)"
                + " where w.section_id = x.s and w.host = x.h and w.round = ?",
            wanted.stream().map(TestWantedRecord::getSectionId).toArray(UUID[]::new),
            wanted.stream().map(TestWantedRecord::getHost).toArray(String[]::new),
            round)
        .execute();
  }

  /** What stands in the shell, though its connection may have another secret by now. */
  private Optional<Signer> signer(
      KnownConnection k, ToolHosts.Cell c, Map<String, Optional<Signer>> known) {
    if (k.connection().way() == Way.OPEN) {
      return Optional.empty();
    }
    UUID id = UUID.fromString(k.connection().id());
    return known
        .computeIfAbsent(
            id + " " + c.secret(),
            x ->
                c.secret() == ToolHosts.Secret.BEFORE
                    ? connections.before(id)
                    : Optional.of(new Signer(k.key(), connections.secret(id), k.registration())))
        .map(s -> s.in(c.section()));
  }

  /** As a student only where an instructor gets in: else it says nothing new. */
  private List<Tested> both(
      ToolHosts.Cell c, Link link, KnownConnection k, Optional<Signer> signer, SilentTools silent) {
    UUID id = UUID.fromString(k.connection().id());
    Answered first =
        silent.asked(
            c.host(),
            () ->
                launches.send(launch(c, link, k, Role.INSTRUCTOR), signer, k.connection().hosts()));
    Tested instructor = new Tested(c.section(), c.host(), id, Role.INSTRUCTOR, first);
    if (!first.answer().opened()) {
      return List.of(instructor);
    }
    Answered second =
        launches.send(launch(c, link, k, Role.LEARNER), signer, k.connection().hosts());
    return List.of(instructor, new Tested(c.section(), c.host(), id, Role.LEARNER, second));
  }

  private BasicLaunch launch(ToolHosts.Cell c, Link any, KnownConnection k, Role role) {
    java.util.SortedMap<String, String> sent = new java.util.TreeMap<>(any.parameters());
    if (!c.course().isEmpty()) {
      sent.put("tool_course", c.course());
    }
    ToolSection s = c.section();
    return new BasicLaunch(
        new Link(any.address(), sent),
        "zephyrmist-test",
        "Zephyrmist tests whether this opens",
        new BasicLaunch.Course(s.shell().orElse(s.place().section()), s.code(), s.title()),
        new BasicLaunch.Person("zephyrmist-" + role, "Zephyrmist", "", role),
        new org.zephyrmist.core.tool.Privacy(k.privacy().name(), false),
        Optional.empty(),
        "zephyrmist",
        Optional.of(launches.back()));
  }

  private void keep(List<Tested> done, Map<String, UUID> asked, UUID round) {
    OffsetDateTime now = OffsetDateTime.now(clock);
    db.batch(
            done.stream()
                .map(
                    d ->
                        db.insertInto(LAUNCH_TEST)
                            .set(LAUNCH_TEST.CONNECTION_ID, d.connection())
                            .set(LAUNCH_TEST.SECTION_ID, d.section().id())
                            .set(LAUNCH_TEST.HOST, d.host())
                            .set(LAUNCH_TEST.ROLE, d.role())
                            .set(LAUNCH_TEST.OUTCOME, d.answered().answer().outcome())
                            .set(LAUNCH_TEST.SAID, d.answered().answer().said())
                            .set(LAUNCH_TEST.MILLIS, d.answered().millis())
                            .set(LAUNCH_TEST.PERSON_ID, asked.get(d.section().id() + d.host()))
                            .set(LAUNCH_TEST.ROUND, round)
                            .set(LAUNCH_TEST.AT, now))
                .toList())
        .execute();
    Map<String, List<Tested>> byCell = new HashMap<>();
    done.forEach(
        d -> byCell.computeIfAbsent(d.section().id() + d.host(), k -> new ArrayList<>()).add(d));
    db.batch(byCell.values().stream().map(two -> found(two, now)).toList()).execute();
  }

  /** What two launches say of a host in a section. */
  private org.jooq.Query found(List<Tested> two, OffsetDateTime now) {
    Tested instructor = two.get(0);
    LaunchPair pair =
        new LaunchPair(
            instructor.answered().answer(),
            two.stream()
                .filter(t -> t.role() == Role.LEARNER)
                .map(t -> t.answered().answer())
                .findFirst());
    return db.query(
        "insert into section_tool (section_id, host, support, data, tested, tested_at, refused,"
            + " looked_at) values (?, ?, true, 'NONE', ?, ?::timestamptz, ?, ?::timestamptz) on"
            + " conflict (section_id, host) do update set tested = excluded.tested, tested_at ="
            + " excluded.tested_at, refused = excluded.refused",
        instructor.section().id(),
        instructor.host(),
        pair.tested().name(),
        now,
        pair.refused().orElse(""),
        now);
  }
}
