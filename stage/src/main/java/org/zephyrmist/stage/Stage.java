package org.zephyrmist.stage;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** A fresh database, the practice platform and some servers as processes of their own. */
public final class Stage implements AutoCloseable {
  private static final int PRACTICE_PORT = Ports.free();
  private static final int MAIL_PORT = Ports.free();
  private static final int TOOLS_PORT = Ports.free();
  private static final List<Integer> SERVER_PORTS = List.of(Ports.free(), Ports.free());

  /** Setting of the servers that has the practice tools started too. */
  public static final String TOOLS = "ZEPHYRMIST_PRACTICE_TOOLS";

  private static Stage shared;
  private final String name;
  private final Map<String, String> settings;
  private final List<String> options;
  private final Map<Integer, Program> servers = new HashMap<>();
  private Postgres postgres;
  private Program practice;
  private Program tools;
  private Path temporary;
  private Emptied emptied;

  /**
   * @param settings of the servers, as environment variables
   * @param options of the servers' Java
   */
  public Stage(String name, Map<String, String> settings, List<String> options) {
    this.name = name + System.getProperty("fork", "");
    this.settings = settings;
    this.options = options;
  }

  /**
   * The one stage that this process has for all who come one after the other: with one server, and
   * as empty as at its beginning. It ends with the process; who has used it need not close it.
   */
  public static synchronized Stage shared(
      String name, Map<String, String> settings, List<String> options) throws Exception {
    if (shared == null) {
      shared = new Stage(name, settings, options).open(1);
      shared.emptied = new Emptied(shared::connect);
    } else if (shared.settings.equals(settings)) {
      shared.emptied.empty();
    } else {
      throw new IllegalArgumentException("The shared stage has other settings: " + shared.settings);
    }
    return shared;
  }

  public Stage open(int servers) throws Exception {
    return open(servers, Postgres.shared());
  }

  public Stage open(int servers, Postgres in) throws Exception {
    try {
      return opened(servers, in);
    } catch (Exception | Error e) {
      close();
      throw e;
    }
  }

  private Stage opened(int many, Postgres in) throws Exception {
    endShared();
    temporary = Folders.fresh("temporary-" + name);
    postgres = in;
    postgres.fresh(database());
    practice =
        standin(
            "practice",
            "-Xmx512m",
            Map.of(
                "STANDINS_PORT",
                String.valueOf(PRACTICE_PORT),
                "STANDINS_SMTP_PORT",
                String.valueOf(MAIL_PORT),
                "STANDINS_TOOLS",
                toolsAddress()));
    if (settings.containsKey(TOOLS)) {
      tools =
          standin(
              "tools",
              "-Xmx256m",
              Map.of(
                  "STANDINS_WHAT",
                  "tools",
                  "STANDINS_POOL",
                  "4",
                  "STANDINS_PORT",
                  String.valueOf(TOOLS_PORT)));
    }
    for (int i = 0; i < many; i++) {
      startServer(i);
    }
    practice.await(practiceAddress() + "/");
    if (tools != null) {
      tools.await(toolsAddress() + "/");
    }
    for (int i = 0; i < many; i++) {
      awaitServer(i);
    }
    return this;
  }

  private Program standin(String what, String heap, Map<String, String> own) throws IOException {
    Map<String, String> all = new HashMap<>(own);
    all.put("STANDINS_DB_URL", postgres.url(database()) + "?currentSchema=practice");
    all.put("STANDINS_DB_USER", Postgres.ROLE);
    all.put("STANDINS_DB_PASSWORD", postgres.password());
    return Program.start("standins", name + "-" + what, List.of(heap, temporary()), all);
  }

  private String database() {
    return "zephyrmist_" + name;
  }

  private String temporary() {
    return "-Djava.io.tmpdir=" + temporary;
  }

  public static String practiceAddress() {
    return "http://127.0.0.1:" + PRACTICE_PORT;
  }

  public static String toolsAddress() {
    return "http://127.0.0.1:" + TOOLS_PORT;
  }

  public static String address(int server) {
    return "http://127.0.0.1:" + SERVER_PORTS.get(server);
  }

  public void startServer(int n) throws IOException {
    Map<String, String> env = new HashMap<>(settings);
    env.put("ZEPHYRMIST_PORT", String.valueOf(SERVER_PORTS.get(n)));
    env.put("ZEPHYRMIST_DB_URL", postgres.url(database()));
    env.put("ZEPHYRMIST_DB_USER", Postgres.ROLE);
    env.put("ZEPHYRMIST_DB_PASSWORD", postgres.password());
    env.put("ZEPHYRMIST_SECRET", "only for measuring, only for measuring");
    env.put("ZEPHYRMIST_PASSWORD_COST", "4"); // nobody guesses here
    env.put("ZEPHYRMIST_PRACTICE", practiceAddress());
    env.put("ZEPHYRMIST_ADDRESS", address(n));
    env.put("ZEPHYRMIST_READSEVERY", "0s");
    env.put("ZEPHYRMIST_MAIL_FROM", "zephyrmist@larkmoor.example");
    env.put("ZEPHYRMIST_MAIL_PORT", String.valueOf(MAIL_PORT));
    env.put("ZEPHYRMIST_PRIVATE_HOSTS", "127.0.0.1:" + PRACTICE_PORT + ",127.0.0.1:" + TOOLS_PORT);
    List<String> all = new ArrayList<>(options);
    all.add(temporary());
    if (System.getenv("BENCH_OPTIONS") != null) { // a profiler, say
      all.addAll(List.of(System.getenv("BENCH_OPTIONS").split(" ")));
    }
    servers.put(n, Program.start("server", name + "-server" + n, all, env));
  }

  public void awaitServer(int n) throws InterruptedException {
    servers.get(n).await(address(n) + "/actuator/health/readiness");
  }

  /** Ends a server as a power cut would. */
  public void kill(int n) {
    servers.get(n).kill();
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
    postgres.restart();
  }

  public Connection connect() throws SQLException {
    return postgres.connect(database());
  }

  /** The database for PostgreSQL's own tools. */
  public String uri() {
    return postgres.uri(database());
  }

  /** A process has one stage at a time: they have the same ports. */
  private static synchronized void endShared() {
    if (shared != null) {
      shared.end();
      shared = null;
    }
  }

  /** Ends all of it, unless others will ask for it. */
  @Override
  public void close() {
    if (this != shared) {
      end();
    }
  }

  private void end() {
    servers.values().forEach(Program::close);
    if (practice != null) {
      practice.kill();
    }
    if (tools != null) {
      tools.kill();
    }
  }
}
