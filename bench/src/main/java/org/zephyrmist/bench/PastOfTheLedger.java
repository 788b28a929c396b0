package org.zephyrmist.bench;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.Statement;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;

/** What a section held on a day, among very many receipts, against a bare query of the rows. */
final class PastOfTheLedger {
  private static final int ITEMS = 500;
  private static final int TIMES = 6;
  private static final int WARM = 200;
  private final int receipts;

  PastOfTheLedger(int receipts) {
    this.receipts = receipts;
  }

  Figure run() throws Exception {
    Path folder = Folders.fresh("past");
    try (Stage s = Measuring.stage()) {
      College college = College.found(1, folder);
      college.make(college.takeIn(Samples.cartridge(folder, 10)));
      try (Connection db = s.connect()) {
        ManySections.fill(db, Math.max(4, receipts / (ITEMS * TIMES)), 1);
        long there = fill(db);
        List<String> sections = sections(db);
        String day = LocalDate.now().minusDays(25).toString();
        int[] n = {0};
        Stopwatch.Work asked =
            () ->
                college.api.raw(
                    "/api/sections/" + sections.get(n[0]++ % sections.size()) + "/items?on=" + day);
        for (int i = 0; i < WARM; i++) {
          asked.run(); // a server that has just started compiles what it runs
        }
        double call = Coverage.percentile(asked);
        PreparedStatement bare = bare(db, day);
        double query =
            Coverage.percentile(
                () -> {
                  bare.setString(1, sections.get(n[0]++ % sections.size()));
                  Coverage.rows(bare);
                });
        return Figure.of("what a section held on a day, 95th percentile", call, query, 2.0, "s")
            .with("receipts", there)
            .with("items", ITEMS);
      }
    }
  }

  /** Each section got each item, and its next form a week later, and so on. */
  private static long fill(Connection db) throws Exception {
    try (Statement s = db.createStatement()) {
      s.execute(
          "insert into receipt (section_id, master_id, version_id, delivery_id, item_key,"
              + " item_kind, title, how, writes, platform_item, sent, shown, person_id, at)"
              + " select s.id, v.master_id, v.id, d.id, 'k' || i, 'PAGE', 'Item ' || i,"
              + " case when n = 1 then 'ADDED' else 'UPDATED' end, 1, 'p' || i, x.f, x.f,"
              + " v.frozen_by, now() - (7 - n) * interval '7 days'"
              + " from section s, (select v.*, d.id as delivery from version v join delivery d"
              + "   on d.version_id = v.id order by v.number limit 1) v"
              + " join delivery d on d.id = v.delivery,"
              + " (select decode(repeat('5a', 192), 'hex') as f) x,"
              + " generate_series(1, "
              + TIMES
              + ") n, generate_series(1, "
              + ITEMS
              + ") i order by n, s.id");
      s.execute("vacuum analyze receipt"); // or PostgreSQL does it while we measure
      try (ResultSet r = s.executeQuery("select count(*) from receipt")) {
        r.next();
        return r.getLong(1);
      }
    }
  }

  private static List<String> sections(Connection db) throws Exception {
    List<String> all = new ArrayList<>();
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("select id from section order by md5(code)")) {
      while (r.next()) {
        all.add(r.getString(1));
      }
    }
    return all;
  }

  private static PreparedStatement bare(Connection db, String day) throws Exception {
    PreparedStatement q =
        db.prepareStatement(
            "select distinct on (item_key, master_id) * from receipt where section_id = ?::uuid"
                + " and at < ?::date + 1 order by item_key, master_id, id desc");
    q.setString(2, day);
    return q;
  }
}
