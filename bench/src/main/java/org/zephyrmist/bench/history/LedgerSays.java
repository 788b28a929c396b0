package org.zephyrmist.bench.history;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** The ledger beside what the platform shows. */
final class LedgerSays {
  private final Turn of;

  LedgerSays(Turn of) {
    this.of = of;
  }

  /** What the platform calls items of the master in some shells. */
  Set<String> called(List<Integer> shells, Set<String> keys) throws SQLException {
    Set<String> ids = new HashSet<>();
    try (Connection db = of.stage().connect();
        var q =
            db.prepareStatement(
                "select platform_item from holding where section_id = any(?::uuid[])"
                    + " and item_key = any(?)")) {
      q.setArray(
          1, db.createArrayOf("text", shells.stream().map(i -> of.sections().get(i)).toArray()));
      q.setArray(2, db.createArrayOf("text", keys.toArray()));
      try (ResultSet r = q.executeQuery()) {
        while (r.next()) {
          ids.add(r.getString(1));
        }
      }
    }
    return ids;
  }

  /** The ledger says of each item what the platform shows. */
  void agrees(int at, ShellSeen is) throws SQLException {
    try (Connection db = of.stage().connect();
        var q =
            db.prepareStatement(
                "select platform_item, title, here is null, here is distinct from shown from holding"
                    + " where section_id = ?::uuid")) {
      q.setString(1, of.sections().get(at));
      try (ResultSet r = q.executeQuery()) {
        while (r.next()) {
          ShellSeen.Thing t = is.items().get(r.getString(1));
          String what = of.shells().get(at) + " “" + r.getString(2) + "”";
          if (r.getBoolean(3) != (t == null)) {
            throw new Oracle.Broken("the ledger is wrong about what is there: " + what);
          }
          if (t != null && r.getBoolean(4) && !of.oracle().wasTouched(t.id())) {
            throw new Oracle.Broken("untouched, and changed here by the ledger: " + what);
          }
          if (t != null && !r.getBoolean(4) && !of.oracle().in(of.shells().get(at), t).isEmpty()) {
            throw new Oracle.Broken(
                "own words, and as delivered by the ledger: "
                    + what
                    + " "
                    + of.oracle().in(of.shells().get(at), t));
          }
        }
      }
    }
  }
}
