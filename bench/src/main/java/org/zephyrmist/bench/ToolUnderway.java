package org.zephyrmist.bench;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.zephyrmist.stage.Caller;
import org.zephyrmist.stage.Stage;

/**
 * A tool that is connected in shells, given other secrets and tested while everything else goes
 * wrong; in the end each shell has the last secret, and its own key.
 */
final class ToolUnderway {
  static final String HOST = "ropewalk.example";
  private static final String NOT_YET =
      "select 1 from tool_write where trouble = '' union all select 1 from test_wanted";
  private final Random random;
  private final College college;
  private final Caller administrator = new Caller(Stage.address(0));
  private String connection;
  private int secret = 1;

  ToolUnderway(Random random, College college) {
    this.random = random;
    this.college = college;
  }

  void enter() {
    administrator.signIn(College.ADMINISTRATOR, College.PASSWORD);
    connection = administrator.post("/api/tools/connections", entry(secret)).path("id").asString();
  }

  /** From now on another server. */
  void turnTo(String server) {
    administrator.turnTo(server);
  }

  private static Map<String, Object> entry(int secret) {
    Map<String, Object> all = new HashMap<>(ToolLinksOfSections.open("Rigging", HOST));
    all.put("way", "KEY_AND_SECRET");
    all.put("stages", List.of("CREDENTIALS"));
    all.put("key", "larkmoor-{section}");
    all.put("secret", "secret-" + secret);
    return all;
  }

  void anotherSecret() {
    administrator.put("/api/tools/connections/" + connection, entry(secret + 1));
    secret++;
  }

  /** In some of the sections, by chance. */
  void connect(List<String> sections) {
    List<String> some = new ArrayList<>(sections);
    some.removeIf(s -> random.nextBoolean());
    apply(some);
  }

  void test(List<String> sections) {
    college.api.post("/api/tools/tests", Map.of("sections", sections, "host", HOST));
  }

  private void apply(List<String> sections) {
    college.api.post(
        "/api/tools/connections/" + connection + "/apply",
        Map.of("sections", sections, "really", true));
  }

  /** All faults are away: the last secret to all, and nothing left to be done. */
  void finish(Connection db, List<String> sections) throws Exception {
    secret++; // what became of the last that was asked for is not known if its answer was lost
    administrator.put("/api/tools/connections/" + connection, entry(secret));
    College.await(() -> applied(sections), done -> done, Duration.ofMinutes(1));
    College.await(() -> none(db), done -> done, Duration.ofMinutes(5));
  }

  /** Who is told that somebody else was at the same thing tries again, as they are asked to. */
  private boolean applied(List<String> sections) {
    try {
      apply(sections);
      return true;
    } catch (Caller.Failed e) {
      if (e.status != 409) {
        throw e;
      }
      return false;
    }
  }

  private static boolean none(Connection db) {
    try (ResultSet r = db.createStatement().executeQuery(NOT_YET)) {
      return !r.next();
    } catch (SQLException e) {
      throw new IllegalStateException(e);
    }
  }

  String lastSecret() {
    return "secret-" + secret;
  }
}
