package org.zephyrmist.bench;

import java.io.IOException;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.zephyrmist.stage.Caller;
import org.zephyrmist.stage.Practice;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * The calls that bring so many items into a shell and the rows that tell of it, and nothing else:
 * no plan, no comparing, no ledger. As many shells at a time as a server works on.
 */
final class RawDelivery {
  private static final int AT_ONCE = 6;
  private static final int PER_CALL = 50;
  private final Practice practice;
  private final int items;

  RawDelivery(Practice practice, int items) {
    this.practice = practice;
    this.items = items;
  }

  double run(Connection db, int sections) throws Exception {
    List<String> shells = new ArrayList<>();
    for (int i = 0; i < sections; i++) {
      shells.add(String.format("raw-%05d", i));
    }
    practice.makeShells(shells);
    try (Statement s = db.createStatement()) {
      s.execute("drop table if exists raw_step, raw_receipt, raw_holding");
      s.execute("create table raw_step (line bytea, n int, what bytea, primary key (line, n))");
      s.execute("create table raw_receipt (line bytea, n int, what bytea, primary key (line, n))");
      s.execute("create table raw_holding (line bytea, n int, what bytea, primary key (line, n))");
    }
    return Stopwatch.seconds(() -> deliver(db, shells));
  }

  private void deliver(Connection db, List<String> shells) throws Exception {
    ExecutorService pool = Executors.newFixedThreadPool(AT_ONCE);
    List<Future<?>> all = new ArrayList<>();
    for (String shell : shells) {
      all.add(
          pool.submit(
              () -> {
                write(shell);
                rows(db);
                return null;
              }));
    }
    for (Future<?> f : all) {
      f.get();
    }
    pool.shutdown();
  }

  private void write(String shell) {
    practice.items(shell);
    practice.call("POST", "/api/files/missing", "application/json", "{\"sha256\":[]}");
    List<ObjectNode> modules = new ArrayList<>();
    List<ObjectNode> rest = new ArrayList<>();
    for (int i = 0; i < items; i++) {
      (i % 10 == 0 ? modules : rest).add(step(i));
    }
    Map<String, String> ids = new HashMap<>();
    send(shell, modules, ids);
    rest.forEach(s -> inModule(s, ids));
    send(shell, rest, ids);
    List<ObjectNode> links = new ArrayList<>();
    for (int i = 1; i < items; i += 10) {
      ObjectNode update = step(i).put("op", "UPDATE").put("id", ids.get("item " + i));
      update.remove(List.of("kind", "place", "grading", "timing", "visibility", "launch"));
      links.add(update);
    }
    send(shell, links, new HashMap<>());
    practice.items(shell);
  }

  private static void inModule(ObjectNode step, Map<String, String> ids) {
    int n = Integer.parseInt(step.path("wording").path("title").asString().split(" ")[1]);
    ((ObjectNode) step.path("place")).put("parent", ids.get("item " + n / 10 * 10));
  }

  private void send(String shell, List<ObjectNode> steps, Map<String, String> ids) {
    for (int from = 0; from < steps.size(); from += PER_CALL) {
      ObjectNode body = Caller.JSON.createObjectNode();
      List<ObjectNode> some = steps.subList(from, Math.min(steps.size(), from + PER_CALL));
      body.putArray("steps").addAll(some);
      JsonNode answers =
          Caller.JSON
              .readTree(
                  practice.call(
                      "POST",
                      "/api/shells/" + shell + "/steps",
                      "application/json",
                      body.toString()))
              .path("answers");
      for (int i = 0; i < some.size(); i++) {
        ids.put(
            some.get(i).path("wording").path("title").asString(),
            answers.get(i).path("id").asString());
      }
    }
  }

  private static ObjectNode step(int i) {
    ObjectNode s = Caller.JSON.createObjectNode();
    s.put("key", UUID.randomUUID().toString()).put("op", "ADD");
    s.put("kind", i % 10 == 0 ? "MODULE" : "PAGE");
    ObjectNode wording = s.putObject("wording").put("title", "item " + i);
    wording.put("html", i % 10 == 0 ? "" : text(i));
    wording.putObject("more");
    s.putObject("place").put("rank", "" + i);
    s.putObject("grading");
    s.putObject("timing");
    s.putObject("launch");
    s.putObject("visibility").put("shown", true).put("instructorsOnly", false);
    return s;
  }

  private static String text(int i) {
    return "<h2>Lamp "
        + i
        + "</h2><p>A circuit carries 2,400 watts; lamp "
        + i
        + " draws its share.</p>"
        + "<p>Write the load beside every lantern on the plot.</p>".repeat(4);
  }

  /** As many bytes as a step, a receipt and a holding have. */
  private synchronized void rows(Connection db) throws SQLException, IOException {
    byte[] line = UUID.randomUUID().toString().getBytes(java.nio.charset.StandardCharsets.US_ASCII);
    for (String table : List.of("raw_step", "raw_receipt", "raw_holding")) {
      try (RawCopy copy = new RawCopy(db, table)) {
        for (int i = 0; i < items; i++) {
          copy.row(line, i, new byte[500]);
        }
      }
    }
  }
}
