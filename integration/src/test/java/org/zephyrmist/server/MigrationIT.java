package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.flywaydb.core.Flyway;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.stage.Postgres;

/** What earlier versions of the schema held is still there in the newest. */
class MigrationIT {
  private static final Postgres POSTGRES = Postgres.shared();
  private static final String DATABASE = "zephyrmist_migration";
  private static final String ZEROS = "decode(repeat('00', 192), 'hex')";

  private static void migrate(String to) {
    Flyway.configure()
        .dataSource(POSTGRES.url(DATABASE), Postgres.ROLE, POSTGRES.password())
        .locations("classpath:db/migration")
        .target(to)
        .load()
        .migrate();
  }

  private static List<String> rows(Statement s, String query) throws SQLException {
    List<String> all = new ArrayList<>();
    try (ResultSet r = s.executeQuery(query)) {
      while (r.next()) {
        all.add(r.getString(1));
      }
    }
    return all;
  }

  private static String id(int n) {
    return "'00000000-0000-0000-0000-0000000000%02d'".formatted(n);
  }

  private static String receipt(int master, String how, String item) {
    return "insert into receipt (section_id, master_id, version_id, delivery_id, item_key, item_kind,"
        + " title, how, writes, platform_item, sent, shown, person_id, at) values ("
        + String.join(
            ", ",
            id(1),
            id(master),
            id(master + 2),
            id(master + 4),
            "'k'",
            "'PAGE'",
            "'T'",
            "'" + how + "'",
            "0",
            "'" + item + "'",
            ZEROS,
            ZEROS,
            id(2),
            "now()")
        + ")";
  }

  /** Two masters that bring one key, as the sixth version of the schema kept them. */
  private static void twoMastersOfOneKey(Statement s) throws SQLException {
    for (String insert :
        List.of(
            "campus values (%1$s, 'c', 'C')".formatted(id(1)),
            "program values (%1$s, 'p', 'P')".formatted(id(1)),
            "course values (%1$s, 'c', 'C', 'C', %1$s)".formatted(id(1)),
            "section (id, sourced_id, code, title, course_id, campus_id) values"
                + " (%1$s, 's', 's', 'S', %1$s, %1$s)".formatted(id(1)),
            "person values (%s, null, 'a@x.example', 'A', 'ADMINISTRATOR', null)".formatted(id(2)),
            "tree values (%s)".formatted(id(1)),
            "cartridge values (%s, 'Old', 'old')".formatted(id(1)))) {
      s.execute("insert into " + insert);
    }
    for (int m : new int[] {10, 11}) {
      s.execute(
          "insert into master values (%s, 'M%d', 'M', null, %s, null, %s, now())"
              .formatted(id(m), m, id(1), id(2)));
      s.execute(
          "insert into version values (%s, %s, 1, %s, '', 1, %s, now())"
              .formatted(id(m + 2), id(m), id(1), id(2)));
      s.execute(
          "insert into delivery values (%s, %s, 'DONE', 'KEEP_SECTION', 'ADOPT', %s, now())"
              .formatted(id(m + 4), id(m + 2), id(2)));
    }
    s.execute("insert into coverage_rule values (gen_random_uuid(), " + id(10) + ", null)");
    s.execute(receipt(10, "ADDED", "first"));
    s.execute(receipt(11, "ADDED", "second"));
    s.execute(
        "insert into holding select section_id, master_id, item_key, item_kind, title,"
            + " platform_item, id, sent, shown, shown from receipt where platform_item = 'second'");
  }

  @Test
  void aHoldingThatAnotherMasterTookAwayComesBackAndItsSectionIsReadAgain() throws Exception {
    POSTGRES.fresh(DATABASE);
    migrate("6");
    try (Connection c = POSTGRES.connect(DATABASE);
        Statement s = c.createStatement()) {
      twoMastersOfOneKey(s);
      migrate("latest");
      assertThat(rows(s, "select platform_item from holding order by 1"))
          .containsExactly("first", "second");
      assertThat(rows(s, "select task_instance from scheduled_tasks"))
          .containsExactly(id(1).replace("'", ""));
      assertThat(rows(s, "select shell_order from master order by code")).containsExactly("c", "m");
      assertThat(rows(s, "select old_keys from cartridge")).containsExactly("t");
    }
  }

  @Test
  void whatWasRetiredStaysAway() throws Exception {
    POSTGRES.fresh(DATABASE);
    migrate("6");
    try (Connection c = POSTGRES.connect(DATABASE);
        Statement s = c.createStatement()) {
      twoMastersOfOneKey(s);
      s.execute(receipt(10, "RETIRED", "first"));
      migrate("latest");
      assertThat(rows(s, "select platform_item from holding")).containsExactly("second");
    }
  }

  private static String sha256(String form) {
    return "sha256(convert_to('" + form + "', 'UTF8'))";
  }

  /** Packed fingerprints that have this form in the third aspect, timing. */
  private static String timed(String form) {
    return "overlay(%s placing %s from 65 for 32)".formatted(ZEROS, sha256(form));
  }

  @Test
  void aLocalTimeWithSecondsBecomesTheOneWithoutWhereverItIsKept() throws Exception {
    POSTGRES.fresh(DATABASE);
    migrate("9");
    String old = "{\"due\":\"2026-10-05T18:00:00\",\"opens\":\"2026-09-05T08:30\"}";
    String now = "{\"due\":\"2026-10-05T18:00\",\"opens\":\"2026-09-05T08:30\"}";
    try (Connection c = POSTGRES.connect(DATABASE);
        Statement s = c.createStatement()) {
      s.execute("insert into body values (" + sha256(old) + ", '" + old + "')");
      s.execute("insert into tree values (" + id(1) + ")");
      s.execute(
          "insert into tree_item values (%s, 'k', 'QUIZ', 'Q', null, '1', 'FIXED', true, false, %s)"
              .formatted(id(1), timed(old)));
      migrate("latest");
      assertThat(rows(s, "select aspects = " + timed(now) + " from tree_item"))
          .containsExactly("t");
      assertThat(rows(s, "select form from body where fingerprint = " + sha256(now)))
          .containsExactly(now);
    }
  }

  @Test
  void whatAPlannedStepBecomesIsTheVersionsInWhatItWrites() throws Exception {
    POSTGRES.fresh(DATABASE);
    migrate("6");
    String ones = "decode(repeat('11', 192), 'hex')";
    try (Connection c = POSTGRES.connect(DATABASE);
        Statement s = c.createStatement()) {
      twoMastersOfOneKey(s);
      s.execute(
          "insert into delivery_line (id, delivery_id, section_id, state) values (%s, %s, %s,"
                  .formatted(id(20), id(14), id(1))
              + " 'RUNNING')");
      s.execute(
          "insert into delivery_step (line_id, n, item_key, item_kind, title, kind, reason, moves,"
              + " writes, aspect_steps, here, meant) values (%s, 0, 'k', 'PAGE', 'T', 'UPDATE',"
                  .formatted(id(20))
              + " 'VERSION_MOVED', true, 4, '{}', "
              + ZEROS
              + ", "
              + ones
              + ")");
      migrate("latest");
      assertThat(
              rows(
                  s,
                  "select becomes = overlay(%s placing substring(%s from 65 for 32) from 65 for 32)"
                          .formatted(ZEROS, ones)
                      + " from delivery_step"))
          .containsExactly("t");
    }
  }

  @Test
  void everyWordOfTheApplicationIsAWordOfTheDatabase() throws Exception {
    POSTGRES.fresh(DATABASE);
    migrate("latest");
    Map<String, Enum<?>[]> words =
        Map.of(
            "item_kind", Kind.values(),
            "step_kind", StepKind.values(),
            "step_reason", Step.Reason.values());
    try (Connection c = POSTGRES.connect(DATABASE);
        Statement s = c.createStatement()) {
      for (Map.Entry<String, Enum<?>[]> domain : words.entrySet()) {
        for (Enum<?> word : domain.getValue()) {
          String cast = "select '" + word.name() + "'::" + domain.getKey();
          assertThat(rows(s, cast)).containsExactly(word.name());
        }
      }
    }
  }
}
