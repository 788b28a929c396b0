package org.zephyrmist.bench;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;
import tools.jackson.databind.JsonNode;

/** Planning a second version for sections that hold the first, against reading the same rows. */
final class Plan {
  private static final int AT_ONCE = 6;
  private final int sections;
  private final int items;

  Plan(int sections, int items) {
    this.sections = sections;
    this.items = items;
  }

  Figure run() throws Exception {
    Path folder = Folders.fresh("plan");
    try (Stage s = Measuring.stage()) {
      College college = College.found(sections, folder);
      college.make(college.takeIn(Samples.cartridge(folder, items)));
      try (Connection db = s.connect()) {
        List<String> ids = college.sections(db);
        Deliver.deliver(college, ids);
        secondVersion(college);
        college.plan(college.newest(), ids.subList(0, Math.min(10, sections)));
        double baseline = Stopwatch.seconds(() -> read(s, college, ids));
        double measured = Stopwatch.seconds(() -> college.plan(college.newest(), ids));
        return Figure.of("plan", measured, baseline, 2.0, "s")
            .with("sections", sections)
            .with("items", items);
      }
    }
  }

  static void secondVersion(College college) {
    String draft = "/api/masters/" + college.master;
    int n = 0;
    for (JsonNode i : college.api.get(draft + "/versions/0/outline")) {
      if (i.path("kind").asString().equals("PAGE") && n++ % 20 == 0) {
        college.api.patch(
            draft + "/draft/items/" + i.path("key").asString(),
            Map.of("html", "<p>Second wording " + n + ".</p>"));
      }
    }
    college.freeze("Second");
  }

  /**
   * Every item of every shell from the platform, every holding and every text from the database.
   */
  private static void read(Stage s, College college, List<String> ids) throws Exception {
    ExecutorService pool = Executors.newFixedThreadPool(AT_ONCE);
    List<Future<?>> all = new ArrayList<>();
    for (int i = 0; i < ids.size(); i++) {
      String shell = college.shells.get(i);
      UUID section = UUID.fromString(ids.get(i));
      all.add(
          pool.submit(
              () -> {
                college.practice.call("GET", "/api/shells/" + shell + "/items", null, null);
                try (Connection db = s.connect()) {
                  rows(db, "select * from holding where section_id = ?", section);
                }
                return null;
              }));
    }
    for (Future<?> f : all) {
      f.get();
    }
    pool.shutdown();
  }

  private static void rows(Connection db, String query, UUID section) throws SQLException {
    try (PreparedStatement p = db.prepareStatement(query)) {
      p.setObject(1, section);
      try (ResultSet r = p.executeQuery()) {
        int columns = r.getMetaData().getColumnCount();
        while (r.next()) {
          for (int c = 1; c <= columns; c++) {
            r.getObject(c);
          }
        }
      }
    }
  }
}
