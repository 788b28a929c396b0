package org.zephyrmist.stage;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Map;

/** A PostgreSQL of the checkout, by its script, and databases in it. */
public final class Postgres {
  public static final String ROLE = "builder";
  private final Map<String, String> which;
  private final int port;
  private final String password;

  private Postgres(Map<String, String> which) {
    this.which = which;
    script("start");
    port = Integer.parseInt(script("port").strip());
    password = script("password").strip();
  }

  /** The one that all tests of a run share. */
  public static Postgres shared() {
    return new Postgres(Map.of());
  }

  /** One apart, that may be stopped at any time. */
  public static Postgres apart(String name) {
    return new Postgres(Map.of("PG_FOR", name));
  }

  public int port() {
    return port;
  }

  public String password() {
    return password;
  }

  public String url(String database) {
    return "jdbc:postgresql://127.0.0.1:" + port + "/" + database;
  }

  /** A database for PostgreSQL's own tools. */
  public String uri(String database) {
    return url(database)
        .replace("jdbc:postgresql://", "postgresql://" + ROLE + ":" + password + "@");
  }

  public Connection connect(String database) throws SQLException {
    return DriverManager.getConnection(url(database), ROLE, password);
  }

  /** Makes an empty database in the place of an older one; gives its address. */
  public String fresh(String database) {
    try (Connection c = connect("postgres");
        Statement s = c.createStatement()) {
      drop(s, database);
      s.execute("create database " + database);
      return url(database);
    } catch (SQLException | InterruptedException e) {
      throw new IllegalStateException(e);
    }
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

  void restart() {
    stop();
    script("start");
  }

  public void stop() {
    script("stop");
  }

  private String script(String what) {
    Path root = Path.of(System.getProperty("root", "."));
    try {
      return Shell.output(which, root.resolve("scripts/pg.sh").toString(), what);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }
}
