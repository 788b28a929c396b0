package org.zephyrmist.server;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;

/** The PostgreSQL that the build has started. */
final class Postgres {
  static final String USER = System.getProperty("pg.user");
  static final String PASSWORD = System.getProperty("pg.password");

  private Postgres() {}

  static String url(String database) {
    return "jdbc:postgresql://127.0.0.1:" + System.getProperty("pg.port") + "/" + database;
  }

  static Connection connect(String database) throws SQLException {
    return DriverManager.getConnection(url(database), USER, PASSWORD);
  }

  /** Makes an empty database in the place of an older one; gives its address. */
  static String fresh(String database) {
    try (Connection c = connect("postgres");
        Statement s = c.createStatement()) {
      drop(s, database);
      s.execute("create database " + database);
    } catch (SQLException | InterruptedException e) {
      throw new IllegalStateException(e);
    }
    return url(database);
  }

  /** PostgreSQL's own upkeep may just be at work in it, and cannot be sent away. */
  private static void drop(Statement s, String database) throws SQLException, InterruptedException {
    for (int again = 0; ; again++) {
      try {
        s.execute("drop database if exists " + database + " with (force)");
        return;
      } catch (SQLException e) {
        if (again == 50 || !"42501".equals(e.getSQLState())) {
          throw e;
        }
        Thread.sleep(200);
      }
    }
  }
}
