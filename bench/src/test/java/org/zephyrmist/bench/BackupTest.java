package org.zephyrmist.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.Statement;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Shell;
import org.zephyrmist.stage.Stage;
import tools.jackson.databind.JsonNode;

/** Backup and restore as docs/operation.md tells it. */
class BackupTest {
  /** The practice platform lives in a schema of the same database and is not restored. */
  private static final String OURS = "--schema=public";

  @Test
  void whatWasDumpedComesBackAndWhatCameLaterIsRecognisedAndNotDoubled() throws Exception {
    Path folder = Folders.fresh("backup");
    Path dump = folder.resolve("zephyrmist.dump");
    try (Stage s = Measuring.stage()) {
      College college = College.found(3, folder);
      college.make(college.takeIn(Samples.cartridge(folder, 20)));
      List<String> ids;
      try (Connection db = s.connect()) {
        ids = college.sections(db);
      }
      Deliver.deliver(college, ids.subList(0, 1));
      Shell.output("pg_dump", "--format=custom", OURS, "--file=" + dump, s.uri());
      Deliver.deliver(college, ids.subList(1, 2));

      s.kill(0);
      try (Connection db = s.connect();
          Statement q = db.createStatement()) {
        q.execute("drop schema public cascade");
      }
      Shell.output(
          "pg_restore", "--exit-on-error", "--no-owner", "--dbname=" + s.uri(), dump.toString());
      s.startServer(0);
      s.awaitServer(0);

      try (Connection db = s.connect()) {
        assertThat(holdings(db)).isEqualTo(20);
      }
      String plan = college.plan(college.newest(), ids);
      JsonNode lines = college.api.get("/api/deliveries/" + plan).path("lines");
      assertThat(lines.get(0).path("counts").toString()).isEqualTo("{\"SAME\":20}");
      assertThat(lines.get(1).path("counts").toString()).isEqualTo("{\"TWIN\":20}");
      assertThat(lines.get(2).path("counts").toString()).isEqualTo("{\"ADD\":20}");
      college.confirm(plan);
      college.awaitLeaves(plan, "RUNNING");
      for (String shell : college.shells) {
        assertThat(college.practice.items(shell)).hasSize(20);
      }
      try (Connection db = s.connect()) {
        assertThat(holdings(db)).isEqualTo(60);
        new Agreement(db, new Instructors(new Random(1))).check();
      }
    }
  }

  private static int holdings(Connection db) throws Exception {
    try (Statement q = db.createStatement();
        ResultSet r = q.executeQuery("select count(*) from holding")) {
      r.next();
      return r.getInt(1);
    }
  }
}
