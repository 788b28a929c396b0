package org.zephyrmist.bench.history;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import org.zephyrmist.bench.College;
import org.zephyrmist.stage.Caller;
import org.zephyrmist.stage.Practice;
import org.zephyrmist.stage.Stage;

/** Where histories are played: one server with its practice platform, and who acts there. */
record Scene(College college, Caller designer, Caller colleague, Stage stage) {
  private static final AtomicInteger MADE = new AtomicInteger();

  static Scene of(College college, Stage stage) {
    Caller colleague = new Caller(Stage.address(0));
    colleague.signIn(College.ADMINISTRATOR, College.PASSWORD);
    return new Scene(college, college.api, colleague, stage);
  }

  Caller coordinator() {
    return college.api;
  }

  Practice practice() {
    return college.practice;
  }

  Connection connect() throws SQLException {
    return stage.connect();
  }

  /** A master without items. */
  String master() {
    return made(new HashMap<>());
  }

  /** A master that is built on an edition. */
  String master(String edition) {
    return made(new HashMap<>(Map.of("edition", edition)));
  }

  private String made(Map<String, Object> of) {
    String code = "HST-" + MADE.incrementAndGet();
    of.putAll(Map.of("code", code, "title", code, "courses", List.of()));
    return designer.post("/api/masters", of).path("id").asString();
  }
}
