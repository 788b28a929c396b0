package org.zephyrmist.stage;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;

/**
 * Makes a database under running programs what it was at the beginning. What is known by its
 * fingerprint stays, with the key of signatures: programs remember that it is there.
 */
final class Emptied {
  private static final String KEPT =
      "'body', 'words', 'file', 'file_chunk', 'sent_questions', 'signing_key',"
          + " 'scheduled_tasks', 'flyway_schema_history'";
  private static final String NO_WORK =
      "delete from scheduled_tasks where not picked and task_name <> 'sweep-lines'";

  interface Database {
    Connection connect() throws SQLException;
  }

  private final Database database;
  private final List<String> tables;
  private final List<String> filled = new ArrayList<>();
  private final List<String> guarded;

  /** Notes what there is now. */
  Emptied(Database database) throws SQLException {
    this.database = database;
    try (Connection c = database.connect();
        Statement s = c.createStatement()) {
      s.execute("create schema beginning");
      tables =
          names(
              s,
              "select format('%I.%I', schemaname, tablename) from pg_tables"
                  + " where schemaname in ('public', 'practice') and tablename not in ("
                  + KEPT
                  + ")");
      guarded =
          names(
              s, "select distinct tgrelid::regclass::text from pg_trigger where not tgisinternal");
      for (String t : tables) {
        s.execute("create table " + kept(t) + " as table " + t);
        if (!names(s, "select 'x' from " + kept(t) + " limit 1").isEmpty()) {
          filled.add(t);
        }
      }
    }
  }

  private static List<String> names(Statement s, String query) throws SQLException {
    List<String> all = new ArrayList<>();
    try (ResultSet r = s.executeQuery(query)) {
      while (r.next()) {
        all.add(r.getString(1));
      }
    }
    return all;
  }

  private static String kept(String table) {
    return "beginning.\"" + table + "\"";
  }

  /** Lets what is at work end first: it would leave its rows behind. */
  void empty() throws SQLException, InterruptedException {
    try (Connection c = database.connect();
        Statement s = c.createStatement()) {
      s.execute("truncate practice.queued cascade");
      awaitRest(s);
      for (String t : guarded) { // what is only ever added to, as a rule
        s.execute("alter table " + t + " disable trigger user");
      }
      s.execute("truncate " + String.join(", ", tables));
      for (String t : filled) {
        s.execute("insert into " + t + " overriding system value table " + kept(t));
      }
      for (String t : guarded) {
        s.execute("alter table " + t + " enable trigger user");
      }
    }
  }

  private static void awaitRest(Statement s) throws SQLException, InterruptedException {
    for (int i = 0; i < 2_400; i++) {
      s.execute(NO_WORK);
      try (ResultSet r =
          s.executeQuery(
              "select exists (select from scheduled_tasks where picked)"
                  + " or exists (select from pg_stat_activity where datname = current_database()"
                  + " and pid <> pg_backend_pid() and state <> 'idle')")) {
        r.next();
        if (!r.getBoolean(1)) {
          return;
        }
      }
      Thread.sleep(50);
    }
    throw new IllegalStateException("Work goes on and does not end: see scheduled_tasks");
  }
}
