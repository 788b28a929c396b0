package org.zephyrmist.bench;

import java.nio.file.Path;
import java.sql.Connection;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.zephyrmist.stage.Caller;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Postgres;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;
import tools.jackson.databind.JsonNode;

/**
 * Two servers on one queue, killed and started again, PostgreSQL restarted, a platform that fails
 * in every way, instructors who edit meanwhile; in each shell two masters of one cartridge and one
 * of another whose items have the same identifiers, two of them with front pages that are one in
 * the shell; changes made alike in all shells; a tool that is connected, given other secrets and
 * tested; and then: does the ledger agree with the platform, item by item?
 */
final class Survival {
  private static final List<String> FAULTS =
      List.of("SLOW", "LIMIT", "ERROR", "CUT", "LOSE", "PART", "MEDDLE");
  private static final Map<String, String> SETTINGS =
      Map.of(
          "ZEPHYRMIST_HEARTBEAT",
          "1s",
          "ZEPHYRMIST_FIRST_PAUSE",
          "300ms",
          "ZEPHYRMIST_LOOKSIFTHERE",
          "1s",
          "ZEPHYRMIST_CALL_TIMEOUT",
          "5s",
          "ZEPHYRMIST_LINES_AT_ONCE",
          "4",
          Stage.TOOLS,
          Stage.toolsAddress());
  private static final List<String> WRITTEN = List.of("PAGE", "SETUP");
  private static final String WORDING = "Wording of";
  private static final int ITEMS = 20;
  private final Random random;
  private final int sections;
  private final Duration chaos;
  private final Map<String, Integer> did = new TreeMap<>();
  private final List<String> masters = new ArrayList<>();
  private final List<String> deliveries = new ArrayList<>();
  private final Instructors instructors;
  private ToolUnderway tool;
  private Stage stage;
  private College college;
  private List<String> ids;
  private int versions = 1;
  private int alive = 0;

  Survival(long seed, int sections, Duration chaos) {
    this.random = new Random(seed);
    this.sections = sections;
    this.chaos = chaos;
    this.instructors = new Instructors(random);
  }

  /**
   * @return what happened, by kind
   * @throws IllegalStateException if ledger and platform do not agree
   */
  Map<String, Integer> run() throws Exception {
    Postgres own = Postgres.apart("survival"); // which is stopped while it is used
    try {
      return on(own);
    } finally {
      own.stop();
    }
  }

  private Map<String, Integer> on(Postgres own) throws Exception {
    Path folder = Folders.fresh("survival");
    try (Stage s = new Stage("survival", SETTINGS, List.of("-Xmx400m")).open(2, own)) {
      stage = s;
      college = College.found(sections, folder);
      String edition = college.takeIn(Samples.cartridge(folder, ITEMS));
      masters.add(college.make(edition));
      masters.add(college.make(edition));
      masters.add(college.make(college.takeIn(Samples.alike(folder, ITEMS))));
      tool = new ToolUnderway(random, college);
      tool.enter();
      masters.add(college.make(college.takeIn(Samples.tools(folder, List.of(ToolUnderway.HOST)))));
      for (String master : List.of(masters.get(0), masters.get(2))) {
        college.frontPage(master, "<p>Front page " + masters.indexOf(master) + ".</p>");
        college.freeze(master, "With a front page");
      }
      try (Connection db = s.connect()) {
        ids = college.sections(db);
      }
      for (String master : masters) {
        String first = college.plan(college.newest(master), ids);
        college.confirm(first);
        deliveries.add(first);
      }
      // Whatever chance brings, both servers die once (in a short one the first), the database is
      // restarted, something is
      // taken back, and the platform's queue stands still for a while.
      Deque<Step> certain =
          new ArrayDeque<>(
              List.of(
                  () -> kill(0),
                  () -> attempt("two masters as one order", this::order),
                  () -> attempt("taken back", this::takeBack),
                  () -> attempt("changed alike in all shells", this::edit),
                  () -> attempt("tool connected", () -> tool.connect(ids)),
                  this::restartPostgres,
                  () -> attempt("another secret", tool::anotherSecret),
                  () -> attempt("queue of the platform paused", () -> college.practice.queue(true)),
                  () -> kill(1)));
      if (isShort()) {
        certain.removeLast();
      }
      Instant start = Instant.now();
      Instant next = start.plus(chaos.dividedBy(10));
      while (Instant.now().isBefore(start.plus(chaos))) {
        if (Instant.now().isAfter(next) && !certain.isEmpty()) {
          certain.pop().take();
          next = next.plus(chaos.dividedBy(10));
        }
        something();
        College.pause(100 + random.nextInt(600));
      }
      calm();
      try (Connection db = s.connect()) {
        tool.finish(db, ids);
        Agreement agreement = new Agreement(db, instructors);
        agreement.tool(tool.lastSecret());
        agreement.gone(WORDING);
        agreement.check();
      }
    }
    return did;
  }

  private void something() throws Exception {
    int n = random.nextInt(100);
    if (n < 6 && !isShort()) {
      kill(random.nextInt(2));
    } else if (n < 8) {
      restartPostgres();
    } else if (n < 36) {
      fault();
    } else if (n < 76) {
      instructors.act(college.practice, shell(), did);
    } else if (n < 84) {
      attempt("new version delivered", this::nextVersion);
    } else if (n < 86) {
      attempt("two masters as one order", this::order);
    } else if (n < 88) {
      attempt("taken back", this::takeBack);
    } else if (n < 90) {
      attempt("queue of the platform paused", () -> college.practice.queue(true));
    } else if (n < 92) {
      attempt("queue of the platform went on", () -> college.practice.queue(false));
    } else if (n < 93) {
      attempt("changed alike in all shells", this::edit);
    } else if (n < 94) {
      attempt("tool connected", () -> tool.connect(ids));
    } else if (n < 95) {
      attempt("another secret", tool::anotherSecret);
    } else if (n < 96) {
      attempt("tool tested", () -> tool.test(ids));
    } else if (n < 98) {
      attempt("stopped", () -> act(deliveries.get(deliveries.size() - 1), "stop"));
    } else {
      attempt("gone on", () -> act(deliveries.get(random.nextInt(deliveries.size())), "go-on"));
    }
  }

  /** Starting a server takes as long as everything else in a short one. */
  private boolean isShort() {
    return chaos.compareTo(Duration.ofMinutes(1)) < 0;
  }

  private interface Step {
    void take() throws Exception;
  }

  private void restartPostgres() throws Exception {
    count("PostgreSQL restarted");
    stage.restartPostgres();
  }

  private String shell() {
    return college.shells.get(random.nextInt(sections));
  }

  private void count(String what) {
    did.merge(what, 1, Integer::sum);
  }

  /** Mostly once the other one is there: else people would do nothing but wait. */
  private void kill(int server) throws Exception {
    if (random.nextInt(5) > 0) {
      stage.supervise(1 - server);
      stage.awaitServer(1 - server);
    }
    count("server killed");
    alive = 1 - server;
    college.api.turnTo(Stage.address(alive));
    tool.turnTo(Stage.address(alive));
    stage.kill(server);
    stage.startServer(server);
  }

  private void fault() {
    String kind = FAULTS.get(random.nextInt(FAULTS.size()));
    count("fault " + kind);
    boolean everywhere = random.nextInt(6) == 0;
    try {
      college.practice.fault(everywhere ? null : shell(), kind, 1 + random.nextInt(5));
    } catch (Caller.Failed e) {
      count("not possible just then");
    }
  }

  /** A new wording of some items goes to some sections. */
  private void nextVersion() {
    String master = masters.get(random.nextInt(masters.size()));
    String draft = "/api/masters/" + master + "/draft/items/";
    for (JsonNode n : college.api.get("/api/masters/" + master + "/versions/0/outline")) {
      if (!n.path("kind").asString().equals("MODULE") && random.nextInt(4) == 0) {
        String text = "<p>" + WORDING + " version " + (versions + 1) + ".</p>";
        if (WRITTEN.contains(n.path("kind").asString())) {
          college.api.patch(draft + n.path("key").asString(), Map.of("html", text));
        }
      }
    }
    college.freeze(master, "Version " + ++versions);
    List<String> some = new ArrayList<>(ids);
    some.removeIf(i -> random.nextInt(3) == 0);
    if (some.isEmpty()) {
      some = ids;
    }
    String id =
        college
            .api
            .post("/api/deliveries", Map.of("version", college.newest(master), "sections", some))
            .path("id")
            .asString();
    deliveries.add(id);
    if (random.nextBoolean()) {
      planned(id);
      college.confirm(id);
    }
  }

  /** Waits for a plan; a platform that stands still would have somebody wait for ever. */
  private void planned(String delivery) {
    if (!college.leaves(delivery, "PLANNING", Duration.ofSeconds(20))) {
      attempt("queue of the platform went on", () -> college.practice.queue(false));
      college.awaitLeaves(delivery, "PLANNING");
    }
  }

  /** The newest of two masters that meet in the front page, as one order. */
  private void order() {
    List<String> both = List.of(college.newest(masters.get(0)), college.newest(masters.get(2)));
    Map<String, Object> body = Map.of("version", both.get(0), "sections", ids, "together", both);
    String id = college.api.post("/api/deliveries", body).path("id").asString();
    college
        .api
        .get("/api/deliveries/" + id)
        .path("together")
        .forEach(d -> deliveries.add(d.path("id").asString()));
  }

  /** Of a delivery by chance, with what was changed since left. */
  private void takeBack() {
    String of = deliveries.get(random.nextInt(deliveries.size()));
    deliveries.add(
        college.api.post("/api/deliveries/" + of + "/take-back", Map.of()).path("id").asString());
  }

  /** Words of versions become others, in every text of every shell. */
  private String edit() {
    Map<String, Object> edit =
        Map.of("what", "REPLACE", "sections", ids, "find", WORDING, "put", "As of");
    String id = college.api.post("/api/deliveries/edits", edit).path("id").asString();
    deliveries.add(id);
    return id;
  }

  private void act(String delivery, String what) {
    String state =
        college.api.get("/api/deliveries/" + delivery).path("delivery").path("state").asString();
    if (state.equals("PLANNED") && random.nextBoolean()) {
      OffsetDateTime soon = OffsetDateTime.now().plusSeconds(3);
      college.api.post("/api/deliveries/" + delivery + "/confirm", Map.of("at", soon.toString()));
      count("waits for a time");
    } else if (state.equals("PLANNED")) {
      college.confirm(delivery);
    } else {
      college.api.post("/api/deliveries/" + delivery + "/" + what, null);
    }
  }

  private void attempt(String what, Runnable action) {
    try {
      action.run();
      count(what);
    } catch (Caller.Failed e) {
      count("not possible just then");
    }
  }

  /** All faults away, both servers up, everything brought to its end, the newest version to all. */
  private void calm() throws Exception {
    college.practice.noFaults();
    college.practice.queue(false);
    for (int i = 0; i < 2; i++) {
      if (stage.supervise(i)) {
        count("server ended by itself");
      }
      stage.awaitServer(i);
    }
    for (String d : deliveries) {
      finish(d);
    }
    takeBackTheLast(!isShort());
    for (int round = 0; round < 2; round++) {
      for (String master : masters) {
        String last = college.plan(college.newest(master), ids);
        deliveries.add(last);
        finish(last);
      }
    }
    throughADeath(edit());
    count("changed alike in all shells at the end");
  }

  /** Confirms it; a server dies in the middle of it. */
  private void throughADeath(String delivery) throws Exception {
    college.awaitLeaves(delivery, "PLANNING");
    college.confirm(delivery);
    College.pause(random.nextInt(600));
    kill(random.nextInt(2));
    stage.awaitServer(0);
    stage.awaitServer(1);
    finish(delivery);
  }

  /** The last delivery that can be. */
  private void takeBackTheLast(boolean dies) throws Exception {
    for (int i = deliveries.size() - 1; i >= 0; i--) {
      try {
        String back = college.takeBack(deliveries.get(i));
        if (dies) {
          throughADeath(back);
        } else {
          finish(back);
        }
        count("taken back at the end");
        return;
      } catch (Caller.Failed e) {
        count("not possible just then");
      }
    }
  }

  private void finish(String delivery) {
    for (int i = 0; i < 20; i++) {
      JsonNode d = college.awaitLeaves(delivery, "PLANNING");
      if (d.path("delivery").path("state").asString().equals("PLANNED")) {
        d.path("together").forEach(x -> college.awaitLeaves(x.path("id").asString(), "PLANNING"));
        college.confirm(delivery);
      }
      college.awaitLeaves(delivery, "SCHEDULED");
      d = college.awaitLeaves(delivery, "RUNNING");
      boolean back = d.path("delivery").has("takesBack"); // another came after: a person is asked
      boolean all =
          d.path("lines")
              .valueStream()
              .map(l -> l.path("state").asString())
              .allMatch(s -> s.equals("DONE") || back && s.equals("NEEDS_PERSON"));
      if (all) {
        return;
      }
      college.api.post("/api/deliveries/" + delivery + "/go-on", null);
    }
    throw new IllegalStateException(
        "Does not come to an end: " + college.api.get("/api/deliveries/" + delivery));
  }
}
