package org.zephyrmist.bench;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;

/** All checks of many shells, as they were read last, against reading the same rows. */
final class Checks {
  private static final int RUNS = 5;

  /** Sections that the server looks at together. */
  private static final double TOGETHER = 60;

  private final int sections;
  private final int items;

  Checks(int sections, int items) {
    this.sections = sections;
    this.items = items;
  }

  List<Figure> run() throws Exception {
    Path folder = Folders.fresh("checks");
    Map<String, String> often = Map.of("ZEPHYRMIST_LOOKSAROUND", "1s");
    try (Stage s = Measuring.stage(often)) {
      College college = College.found(sections, folder);
      college.make(college.takeIn(Samples.cartridge(folder, items)));
      try (Connection db = s.connect()) {
        Deliver.deliver(college, college.sections(db));
        double[] looks = new double[RUNS];
        double[] reads = new double[RUNS];
        for (int n = 0; n < RUNS; n++) {
          reads[n] = Stopwatch.seconds(() -> read(db));
          looks[n] = look(db);
        }
        Arrays.sort(looks);
        Arrays.sort(reads);
        return List.of(
            Figure.of(
                    "all checks of all shells, median", looks[RUNS / 2], reads[RUNS / 2], 2.0, "s")
                .with("sections", sections)
                .with("items", items)
                .with("findings", number(db, "select count(*) from finding")));
      }
    }
  }

  /**
   * From when the first sections are looked at until the last are; those that are looked at
   * together begin together, so the last of them are counted in.
   */
  private double look(Connection db) throws Exception {
    try (Statement s = db.createStatement()) {
      s.execute("delete from section_checked");
    }
    College.await(
        () -> number(db, "select count(*) from section_checked"),
        n -> n >= sections,
        Duration.ofMinutes(5));
    double batches = Math.ceil(sections / TOGETHER);
    return number(
            db, "select (extract(epoch from max(at) - min(at)) * 1000)::int from section_checked")
        / 1000.0
        * batches
        / (batches - 1);
  }

  private static int number(Connection db, String sql) {
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery(sql)) {
      r.next();
      return r.getInt(1);
    } catch (SQLException e) {
      throw new IllegalStateException(e);
    }
  }

  /** What a look reads: shells, what was delivered to them, and the texts of both, once each. */
  private static void read(Connection db) throws SQLException {
    for (String sql :
        List.of(
            "select section_id, reading from shell_reading",
            "select section_id, master_id, item_key, item_kind, title, platform_item, sent, shown,"
                + " here, accepted from holding",
            "select fingerprint, form from body")) {
      try (Statement s = db.createStatement();
          ResultSet r = s.executeQuery(sql)) {
        while (r.next()) {
          for (int c = 1; c <= r.getMetaData().getColumnCount(); c++) {
            r.getObject(c);
          }
        }
      }
    }
  }
}
