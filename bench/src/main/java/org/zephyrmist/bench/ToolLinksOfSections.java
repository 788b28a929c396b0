package org.zephyrmist.bench;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.zephyrmist.stage.Caller;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;
import tools.jackson.databind.JsonNode;

/** What state tool links of all sections are in, a rule tried on all of them, and their tests. */
final class ToolLinksOfSections {
  private static final String HOST = "promptdesk.example";
  private static final int AT_ONCE = 8;
  private final int sections;
  private final int links;

  ToolLinksOfSections(int sections, int links) {
    this.sections = sections;
    this.links = links;
  }

  List<Figure> run() throws Exception {
    Path folder = Folders.fresh("tools");
    Map<String, String> settings =
        Map.of(
            Stage.TOOLS,
            Stage.toolsAddress(),
            "ZEPHYRMIST_LOOKSAROUND",
            "1s",
            "ZEPHYRMIST_TOOLTESTSEVERY",
            "0s");
    try (Stage s = Measuring.stage(settings)) {
      College college = College.found(sections, folder);
      List<String> hosts = new ArrayList<>();
      for (int i = 0; i < links; i++) {
        hosts.add(i % 4 == 0 ? HOST : "host" + i % 4 + ".example");
      }
      college.make(college.takeIn(Samples.tools(folder, hosts)));
      try (Connection db = s.connect()) {
        List<String> ids = college.sections(db);
        Deliver.deliver(college, ids);
        enter();
        String term = college.api.get("/api/coverage/terms").get(0).path("id").asString();
        String path = "/api/tools?term=" + term;
        College.await(
            () -> college.api.get(path),
            t -> t.path("looked").asInt() == sections,
            Duration.ofMinutes(5));
        db.createStatement().execute("vacuum analyze");
        PreparedStatement bare = bare(db);
        double rows = Coverage.percentile(() -> Coverage.rows(bare));
        double call = Coverage.percentile(() -> college.api.raw(path));
        double tried = Coverage.percentile(() -> tryOut(college, term));
        double alone = Stopwatch.seconds(this::launchAlone);
        double tests = Stopwatch.seconds(() -> test(college, db, ids));
        return List.of(
            of("state of tool links, 95th percentile", call, rows, 2.0),
            of("a rule tried on all links, 95th percentile", tried, rows, 2.0),
            of("launches as instructor and as student", tests, alone, 1.3));
      }
    }
  }

  private Figure of(String name, double measured, double baseline, double goal) {
    return Figure.of(name, measured, baseline, goal, "s")
        .with("sections", sections)
        .with("links of each", links);
  }

  private static void enter() {
    Caller administrator = new Caller(Stage.address(0));
    administrator.signIn(College.ADMINISTRATOR, College.PASSWORD);
    administrator.post("/api/tools/connections", open("PromptDesk", HOST));
  }

  /** The entry of a connection that asks for nothing. */
  static Map<String, Object> open(String name, String host) {
    return Map.ofEntries(
        Map.entry("name", name),
        Map.entry("hosts", List.of(host)),
        Map.entry("way", "OPEN"),
        Map.entry("level", "COLLEGE"),
        Map.entry("scopeOf", ""),
        Map.entry("stages", List.of()),
        Map.entry("pairing", "BY_RULE"),
        Map.entry("words", ""),
        Map.entry("waitMinutes", 0),
        Map.entry("sendsName", true),
        Map.entry("sendsMail", false),
        Map.entry("grades", false),
        Map.entry("dates", "SENT_ONCE"),
        Map.entry("owner", ""),
        Map.entry("key", ""),
        Map.entry("approved", false),
        Map.entry("terms", List.of()),
        Map.entry("course", ""),
        Map.entry("mastersCourses", List.of()));
  }

  /** Every tool link that a section holds, with where it leads. */
  private static PreparedStatement bare(Connection db) throws Exception {
    return db.prepareStatement(
        "select h.section_id, h.item_key, r.version_id, l.host, l.address, l.parameters"
            + " from holding h join receipt r on r.id = h.receipt_id join version_link l"
            + " on l.version_id = r.version_id and l.item_key = h.item_key");
  }

  private void tryOut(College college, String term) {
    JsonNode tried =
        college.api.post(
            "/api/tools/rules/try?term=" + term,
            Map.of(
                "from", "//host1.example{*rest}",
                "to", "https://moved.example{*rest}",
                "parameters", Map.of("section", "{section-code}"),
                "masters", List.of(),
                "terms", List.of(),
                "campuses", List.of()));
    if (tried.path("links").asInt() != sections * links) {
      throw new IllegalStateException("Only " + tried.path("links") + " links were tried");
    }
  }

  private void launchAlone() throws Exception {
    HttpClient client = HttpClient.newHttpClient();
    ExecutorService pool = Executors.newFixedThreadPool(AT_ONCE);
    List<Future<?>> all = new ArrayList<>();
    for (int i = 0; i < sections * 2; i++) {
      all.add(
          pool.submit(
              () ->
                  client.send(
                      HttpRequest.newBuilder(
                              URI.create(Stage.toolsAddress() + "/at/" + HOST + "/launch"))
                          .header("Content-Type", "application/x-www-form-urlencoded")
                          .POST(
                              HttpRequest.BodyPublishers.ofString(
                                  "lti_message_type=basic-lti-launch-request&roles=Learner"))
                          .build(),
                      HttpResponse.BodyHandlers.ofString())));
    }
    for (Future<?> f : all) {
      f.get();
    }
    pool.shutdown();
  }

  private void test(College college, Connection db, List<String> ids) throws Exception {
    JsonNode begun = college.api.post("/api/tools/tests", Map.of("sections", ids, "host", HOST));
    if (begun.path("testing").asInt() != sections) {
      throw new IllegalStateException("Only " + begun + " are tested");
    }
    PreparedStatement left = db.prepareStatement("select count(*) from test_wanted");
    while (true) {
      try (var r = left.executeQuery()) {
        r.next();
        if (r.getInt(1) == 0) {
          return;
        }
      }
      Thread.sleep(20);
    }
  }
}
