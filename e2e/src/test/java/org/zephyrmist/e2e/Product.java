package org.zephyrmist.e2e;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Map;

/** The started product on an empty database: server and stand-ins as processes of their own. */
final class Product {
  static final String ADDRESS = "http://127.0.0.1:18180";
  static final String PRACTICE = "http://127.0.0.1:18191";
  private static final HttpClient CLIENT = HttpClient.newHttpClient();
  private static boolean started;

  private Product() {}

  static synchronized void start() throws Exception {
    if (started) {
      return;
    }
    String root = System.getProperty("root");
    String port = output(root + "/scripts/pg.sh", "start").replaceAll(".*:(\\d+)/.*", "$1").strip();
    String database = freshDatabase(port);
    run(
        root + "/standins/target/standins-1-app.jar",
        "standins",
        Map.of("STANDINS_PORT", "18191", "STANDINS_DB_URL", database + "?currentSchema=practice"));
    run(
        root + "/server/target/server-1-app.jar",
        "server",
        Map.of(
            "ZEPHYRMIST_PORT",
            "18180",
            "ZEPHYRMIST_DB_URL",
            database,
            "ZEPHYRMIST_SECRET",
            "only for the browser tests",
            "ZEPHYRMIST_PRACTICE",
            PRACTICE));
    await(PRACTICE + "/");
    await(ADDRESS + "/actuator/health/readiness");
    started = true;
  }

  private static String output(String... command) throws IOException, InterruptedException {
    Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
    String text = new String(p.getInputStream().readAllBytes());
    if (p.waitFor() != 0) {
      throw new IllegalStateException(text);
    }
    return text;
  }

  private static String freshDatabase(String port) throws SQLException {
    String server = "jdbc:postgresql://127.0.0.1:" + port + "/";
    try (Connection c =
            DriverManager.getConnection(server + "postgres", "zephyrmist", "zephyrmist");
        Statement s = c.createStatement()) {
      s.execute("drop database if exists zephyrmist_e2e with (force)");
      s.execute("create database zephyrmist_e2e");
    }
    return server + "zephyrmist_e2e";
  }

  private static void run(String jar, String name, Map<String, String> settings)
      throws IOException {
    String java = ProcessHandle.current().info().command().orElse("java");
    ProcessBuilder b = new ProcessBuilder(java, "-Xmx512m", "-jar", jar);
    b.environment().putAll(settings);
    b.redirectErrorStream(true).redirectOutput(Path.of("target", name + ".log").toFile());
    Process p = b.start();
    Runtime.getRuntime().addShutdownHook(new Thread(p::destroy));
  }

  private static void await(String address) throws InterruptedException {
    for (int i = 0; i < 450; i++) {
      try {
        HttpRequest r = HttpRequest.newBuilder(URI.create(address)).build();
        if (CLIENT.send(r, HttpResponse.BodyHandlers.discarding()).statusCode() == 200) {
          return;
        }
      } catch (IOException e) {
        // not up yet
      }
      Thread.sleep(200);
    }
    throw new IllegalStateException(address + " did not become ready; see e2e/target/*.log");
  }

  /** Makes empty shells on the practice platform. */
  static void makeShells(Iterable<String> ids) throws Exception {
    StringBuilder body = new StringBuilder("[");
    for (String id : ids) {
      body.append(body.length() > 1 ? "," : "");
      body.append("{\"id\":\"").append(id).append("\",\"title\":\"Light ").append(id);
      body.append("\",\"course\":\"LGT 110\",\"term\":\"Autumn\",\"students\":12}");
    }
    HttpRequest r =
        HttpRequest.newBuilder(URI.create(PRACTICE + "/api/shells"))
            .header("Authorization", "Bearer practice-token")
            .header("Content-Type", "application/json")
            .POST(HttpRequest.BodyPublishers.ofString(body.append("]").toString()))
            .build();
    CLIENT.send(r, HttpResponse.BodyHandlers.discarding());
  }
}
