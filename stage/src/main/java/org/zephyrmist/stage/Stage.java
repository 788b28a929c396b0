package org.zephyrmist.stage;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** A fresh database, the practice platform and some servers as processes of their own. */
public final class Stage implements AutoCloseable {
  private static final int PRACTICE_PORT = 18_391;
  private static final int TOOLS_PORT = 18_393;

  /** Setting of the servers that has the practice tools started too. */
  public static final String TOOLS = "ZEPHYRMIST_PRACTICE_TOOLS";

  private static final String ROLE = "builder";
  private static final int FIRST_PORT = 18_380;
  private static final HttpClient CLIENT = HttpClient.newHttpClient();
  private final Path root = Path.of(System.getProperty("root", "."));
  private final String name;
  private final Map<String, String> settings;
  private final List<String> options;
  private final Map<Integer, Process> servers = new HashMap<>();
  private Process practice;
  private Process tools;
  private Path temporary;
  private String database;
  private String password;

  /**
   * @param settings of the servers, as environment variables
   * @param options of the servers' Java
   */
  public Stage(String name, Map<String, String> settings, List<String> options) {
    this.name = name;
    this.settings = settings;
    this.options = options;
  }

  public Stage open(int servers) throws Exception {
    try {
      return opened(servers);
    } catch (Exception | Error e) {
      close();
      throw e;
    }
  }

  private Stage opened(int servers) throws Exception {
    temporary = Folders.fresh("temporary");
    postgres("start");
    String server = "jdbc:postgresql://127.0.0.1:" + postgres("port").strip() + "/";
    database = server + "zephyrmist_" + name;
    password = postgres("password").strip();
    try (Connection c = DriverManager.getConnection(server + "postgres", ROLE, password);
        Statement s = c.createStatement()) {
      drop(s, "zephyrmist_" + name);
      s.execute("create database zephyrmist_" + name);
    }
    practice =
        java(
            "practice",
            "standins/target/standins-1-app.jar",
            List.of("-Xmx512m"),
            standin(
                Map.of(
                    "STANDINS_PORT",
                    String.valueOf(PRACTICE_PORT),
                    "STANDINS_SMTP_PORT",
                    String.valueOf(PRACTICE_PORT + 1),
                    "STANDINS_TOOLS",
                    toolsAddress())));
    if (settings.containsKey(TOOLS)) {
      tools =
          java(
              "tools",
              "standins/target/standins-1-app.jar",
              List.of("-Xmx256m"),
              standin(
                  Map.of(
                      "STANDINS_WHAT",
                      "tools",
                      "STANDINS_POOL",
                      "4",
                      "STANDINS_PORT",
                      String.valueOf(TOOLS_PORT))));
    }
    for (int i = 0; i < servers; i++) {
      startServer(i);
    }
    await(practiceAddress() + "/");
    if (tools != null) {
      await(toolsAddress() + "/");
    }
    for (int i = 0; i < servers; i++) {
      awaitServer(i);
    }
    return this;
  }

  private Map<String, String> standin(Map<String, String> own) {
    Map<String, String> all = new HashMap<>(own);
    all.put("STANDINS_DB_URL", database + "?currentSchema=practice");
    all.put("STANDINS_DB_USER", ROLE);
    all.put("STANDINS_DB_PASSWORD", password);
    return all;
  }

  /** PostgreSQL's own upkeep may just be at work in it, and cannot be sent away. */
  private static void drop(Statement s, String database) throws SQLException, InterruptedException {
    for (int again = 0; ; again++) {
      try {
        s.execute("drop database if exists " + database + " with (force)");
        return;
      } catch (SQLException e) {
        if (again == 300 || !"42501".equals(e.getSQLState())) {
          throw e;
        }
        Thread.sleep(200);
      }
    }
  }

  public static String practiceAddress() {
    return "http://127.0.0.1:" + PRACTICE_PORT;
  }

  public static String toolsAddress() {
    return "http://127.0.0.1:" + TOOLS_PORT;
  }

  public static String address(int server) {
    return "http://127.0.0.1:" + (FIRST_PORT + server);
  }

  public void startServer(int n) throws IOException {
    Map<String, String> env = new HashMap<>(settings);
    env.put("ZEPHYRMIST_PORT", String.valueOf(FIRST_PORT + n));
    env.put("ZEPHYRMIST_DB_URL", database);
    env.put("ZEPHYRMIST_DB_USER", ROLE);
    env.put("ZEPHYRMIST_DB_PASSWORD", password);
    env.put("ZEPHYRMIST_SECRET", "only for measuring, only for measuring");
    env.put("ZEPHYRMIST_PRACTICE", practiceAddress());
    env.put("ZEPHYRMIST_ADDRESS", address(n));
    env.put("ZEPHYRMIST_READSEVERY", "0s");
    env.put("ZEPHYRMIST_MAIL_FROM", "zephyrmist@larkmoor.example");
    env.put("ZEPHYRMIST_MAIL_PORT", String.valueOf(PRACTICE_PORT + 1));
    env.put("ZEPHYRMIST_PRIVATE_HOSTS", "127.0.0.1:" + PRACTICE_PORT + ",127.0.0.1:" + TOOLS_PORT);
    List<String> all = new ArrayList<>(options);
    if (System.getenv("BENCH_OPTIONS") != null) { // a profiler, say
      all.addAll(List.of(System.getenv("BENCH_OPTIONS").split(" ")));
    }
    servers.put(n, java("server" + n, "server/target/server-1-app.jar", all, env));
  }

  public static void awaitServer(int n) throws InterruptedException {
    await(address(n) + "/actuator/health/readiness");
  }

  /** Ends a server as a power cut would. */
  public void kill(int n) throws InterruptedException {
    servers.get(n).destroyForcibly().waitFor();
  }

  /**
   * Starts a server again that ended by itself, as whoever supervises it would: one that starts
   * while the database is away may.
   *
   * @return whether it had ended
   */
  public boolean supervise(int n) throws IOException {
    boolean ended = !servers.get(n).isAlive();
    if (ended) {
      startServer(n);
    }
    return ended;
  }

  public long pid(int n) {
    return servers.get(n).pid();
  }

  public void restartPostgres() throws Exception {
    postgres("stop");
    postgres("start");
  }

  private String postgres(String what) throws IOException, InterruptedException {
    return Shell.output(root.resolve("scripts/pg.sh").toString(), what);
  }

  public Connection connect() throws SQLException {
    return DriverManager.getConnection(database, ROLE, password);
  }

  /** The database for PostgreSQL's own tools. */
  public String uri() {
    return database.replace("jdbc:postgresql://", "postgresql://" + ROLE + ":" + password + "@");
  }

  private Process java(String what, String jar, List<String> options, Map<String, String> env)
      throws IOException {
    List<String> command = new ArrayList<>();
    command.add(ProcessHandle.current().info().command().orElse("java"));
    command.addAll(options);
    command.add("-Djava.io.tmpdir=" + temporary);
    if (Boolean.getBoolean("bench.quick")) { // smoke runs: sooner ready, slower at work
      command.add("-XX:TieredStopAtLevel=1");
    }
    command.addAll(List.of("-jar", root.resolve(jar).toString()));
    ProcessBuilder b = new ProcessBuilder(command);
    b.environment().putAll(env);
    Path logs = Files.createDirectories(root.resolve("stage/target/logs"));
    b.redirectErrorStream(true)
        .redirectOutput(
            ProcessBuilder.Redirect.appendTo(logs.resolve(name + "-" + what + ".log").toFile()));
    Process p = b.start();
    Runtime.getRuntime().addShutdownHook(new Thread(p::destroyForcibly));
    return p;
  }

  private static void await(String address) throws InterruptedException {
    for (int i = 0; i < 3_000; i++) {
      try {
        HttpRequest r = HttpRequest.newBuilder(URI.create(address)).build();
        if (CLIENT.send(r, HttpResponse.BodyHandlers.discarding()).statusCode() == 200) {
          return;
        }
      } catch (IOException notUpYet) {
        // looked at again below
      }
      Thread.sleep(100);
    }
    throw new IllegalStateException(address + " did not become ready; see stage/target/logs");
  }

  @Override
  public void close() {
    servers.values().forEach(Process::destroy);
    servers.values().forEach(p -> p.onExit().join());
    if (practice != null) {
      practice.destroyForcibly().onExit().join();
    }
    if (tools != null) {
      tools.destroyForcibly().onExit().join();
    }
  }
}
