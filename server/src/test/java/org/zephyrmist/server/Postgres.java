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
      s.execute("drop database if exists " + database + " with (force)");
      s.execute("create database " + database);
    } catch (SQLException e) {
      throw new IllegalStateException(e);
    }
    return url(database);
  }
}
