package org.zephyrmist.bench;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Arrays;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;

/** The call behind the coverage page, against a bare query of the same rows. */
final class Coverage {
  private static final int TIMES = Boolean.getBoolean("short.life") ? 4 : 40;
  private final int sections;
  private final int masters;

  Coverage(int sections, int masters) {
    this.sections = sections;
    this.masters = masters;
  }

  Figure run() throws Exception {
    Path folder = Folders.fresh("coverage");
    try (Stage s = Measuring.stage()) {
      College college = College.found(1, folder);
      college.make(college.takeIn(Samples.cartridge(folder, 10)));
      try (Connection db = s.connect()) {
        ManySections.fill(db, sections, masters);
        String term = college.api.get("/api/coverage/terms").get(0).path("id").asString();
        double measured = percentile(() -> college.api.raw("/api/coverage?term=" + term));
        Bare bare = Bare.of(db, term);
        double baseline = percentile(bare::read);
        return Figure.of("coverage page call, 95th percentile", measured, baseline, 2.0, "s")
            .with("sections", sections)
            .with("masters", masters)
            .with("bytes", college.api.raw("/api/coverage?term=" + term));
      }
    }
  }

  static double percentile(Stopwatch.Work work) throws Exception {
    double[] all = new double[TIMES];
    for (int i = 0; i < TIMES / 4; i++) {
      work.run();
    }
    for (int i = 0; i < TIMES; i++) {
      all[i] = Stopwatch.seconds(work);
    }
    Arrays.sort(all);
    return all[(int) (TIMES * 0.95)];
  }

  /** Every section of the term and every standing, into plain values. */
  private record Bare(PreparedStatement sections, PreparedStatement standings) {
    static Bare of(Connection db, String term) throws SQLException {
      PreparedStatement sections =
          db.prepareStatement(
              "select s.id, s.code, s.title, c.code, p.name, s.shell, s.in_roster from section s"
                  + " join course c on c.id = s.course_id join campus p on p.id = s.campus_id"
                  + " where s.term_id = ?::uuid order by c.code, s.code");
      PreparedStatement standings =
          db.prepareStatement(
              "select t.section_id, t.master_id, v.number, t.expected, t.held, t.changed"
                  + " from standing t join version v on v.id = t.version_id"
                  + " join section s on s.id = t.section_id where s.term_id = ?::uuid");
      sections.setString(1, term);
      standings.setString(1, term);
      return new Bare(sections, standings);
    }

    void read() throws SQLException {
      rows(sections);
      rows(standings);
    }
  }

  static void rows(PreparedStatement query) throws SQLException {
    try (ResultSet r = query.executeQuery()) {
      int columns = r.getMetaData().getColumnCount();
      while (r.next()) {
        for (int c = 1; c <= columns; c++) {
          r.getObject(c);
        }
      }
    }
  }
}
