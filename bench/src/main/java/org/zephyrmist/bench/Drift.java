package org.zephyrmist.bench;

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
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;
import tools.jackson.databind.JsonNode;

/** Reading shells in each of which an instructor changed a page, and telling who changed what. */
final class Drift {
  private static final int AT_ONCE = 6;
  private final int sections;
  private final int items;

  Drift(int sections, int items) {
    this.sections = sections;
    this.items = items;
  }

  List<Figure> run() throws Exception {
    Path folder = Folders.fresh("drift");
    try (Stage s = Measuring.stage()) {
      College college = College.found(sections, folder);
      college.make(college.takeIn(Samples.cartridge(folder, items)));
      try (Connection db = s.connect()) {
        List<String> ids = college.sections(db);
        Deliver.deliver(college, ids);
        edit(college, "<p>Ours.</p>");
        double baseline = Stopwatch.seconds(() -> readBare(college));
        double measured = Stopwatch.seconds(() -> read(college, ids));
        String term = college.api.get("/api/coverage/terms").get(0).path("id").asString();
        String path = "/api/coverage/masters/" + college.master + "/drift?term=" + term;
        found(college.api.get(path));
        double call = Coverage.percentile(() -> college.api.raw(path));
        PreparedStatement bare = bare(db, college.master, term);
        double query = Coverage.percentile(() -> Coverage.rows(bare));
        return List.of(
            Figure.of("read shells that moved", measured, baseline, 2.0, "s")
                .with("sections", sections)
                .with("items", items),
            Figure.of("drift of a master, 95th percentile", call, query, 2.0, "s")
                .with("sections", sections)
                .with("items", items));
      }
    }
  }

  private void edit(College college, String html) {
    for (String shell : college.shells) {
      for (JsonNode i : college.practice.items(shell)) {
        if (i.path("kind").asString().equals("PAGE")) {
          String title = i.path("wording").path("title").asString();
          college.practice.form(
              "/shells/" + shell + "/items/" + i.path("id").asString() + "/text",
              Map.of("title", title, "html", html));
          break;
        }
      }
    }
  }

  /** Every section's change has been seen, or the figure would be of nothing. */
  private void found(JsonNode drift) {
    int changed = drift.valueStream().mapToInt(d -> d.path("sections").asInt()).sum();
    if (changed < sections) {
      throw new IllegalStateException("Only " + changed + " changes were seen");
    }
  }

  private static void readBare(College college) throws Exception {
    ExecutorService pool = Executors.newFixedThreadPool(AT_ONCE);
    List<Future<?>> all = new ArrayList<>();
    college.shells.forEach(s -> all.add(pool.submit(() -> college.practice.items(s))));
    for (Future<?> f : all) {
      f.get();
    }
    pool.shutdown();
  }

  private static void read(College college, List<String> ids) {
    Map<String, Object> which = Map.of("sections", ids);
    college.api.post("/api/deliveries/readings", which);
    College.await(
        () -> college.api.post("/api/deliveries/readings/left", which),
        left -> left.path("sections").asInt() == 0,
        Duration.ofMinutes(10));
  }

  private static PreparedStatement bare(Connection db, String master, String term)
      throws Exception {
    PreparedStatement q =
        db.prepareStatement(
            "select h.section_id, h.item_key, h.item_kind, h.title, h.shown, h.here from holding h"
                + " join section s on s.id = h.section_id"
                + " where h.master_id = ?::uuid and s.term_id = ?::uuid"
                + " and h.here is distinct from h.shown");
    q.setString(1, master);
    q.setString(2, term);
    return q;
  }
}
