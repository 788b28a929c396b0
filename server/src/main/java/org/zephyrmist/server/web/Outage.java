package org.zephyrmist.server.web;

import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.util.Optional;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.http.HttpStatus;
import org.springframework.transaction.CannotCreateTransactionException;
import org.springframework.transaction.TransactionSystemException;

/** Recognises failures that are the database's being away, full or busy. */
public final class Outage {
  private Outage() {}

  /** Throws a failure on that passes by itself: what failed may be tried again as it is. */
  public static void rethrow(Exception failure) {
    if (failure instanceof RuntimeException e && of(e).isPresent()) {
      throw e;
    }
  }

  /** What a failure says in the end, below whatever carried it. */
  public static String reason(Throwable failure) {
    Throwable t = failure;
    while (t.getCause() != null && t.getCause() != t) {
      t = t.getCause();
    }
    String said = t.getMessage() == null ? t.getClass().getSimpleName() : t.getMessage();
    return said.lines().findFirst().orElse("");
  }

  /**
   * What to answer for a failure that passes; none if it is not the database's. By SQLSTATE classes
   * (ISO 9075-2, PostgreSQL appendix A): 08 connection, 53 resources, 57 operator, 40 rollback.
   */
  static Optional<Refusal> of(Throwable failure) {
    for (Throwable t = failure; t != null; t = t.getCause()) {
      if (t instanceof SQLTransientConnectionException
          || t instanceof TransactionSystemException
          || t instanceof CannotCreateTransactionException
          || t instanceof DataAccessResourceFailureException) {
        return Optional.of(away());
      }
      if (t instanceof SQLException s && s.getSQLState() != null) {
        switch (s.getSQLState().substring(0, 2)) {
          case "08", "57" -> {
            return Optional.of(away());
          }
          case "53" -> {
            return Optional.of(
                new Refusal(
                    HttpStatus.SERVICE_UNAVAILABLE,
                    "The database has no room or no connections left; nothing was changed.",
                    "Tell whoever looks after it, then try again."));
          }
          case "40" -> {
            return Optional.of(
                new Refusal(
                    HttpStatus.CONFLICT,
                    "Somebody else was at the same thing; nothing was changed.",
                    "Try again."));
          }
          default -> {}
        }
      }
    }
    return Optional.empty();
  }

  private static Refusal away() {
    return new Refusal(
        HttpStatus.SERVICE_UNAVAILABLE,
        "The database does not answer just now; nothing was changed.",
        "Try again in a minute.");
  }
}
