package org.zephyrmist.bench;

import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;

/** A large college in the ledger, without shells. */
final class ManySections {
  private ManySections() {}

  /** So many sections that each hold some version of three of every master. */
  static void fill(Connection db, int sections, int masters) throws SQLException {
    try (Statement s = db.createStatement()) {
      s.execute(
          "insert into section (id, sourced_id, code, title, course_id, campus_id, term_id)"
              + " select gen_random_uuid(), 'x' || n, 'x' || n, 'Light', c.id, p.id, t.id"
              + " from generate_series(2, "
              + sections
              + ") n, course c, campus p, term t where p.sourced_id = 'north'");
      s.execute(
          "insert into master (id, code, title, draft_tree_id, made_by, made_at, shell_order) select"
              + " gen_random_uuid(), 'M' || n, 'Master', m.draft_tree_id, m.made_by, now(), m.shell_order"
              + " from master m, generate_series(2, "
              + masters
              + ") n");
      s.execute(
          "insert into coverage_rule (id, master_id) select gen_random_uuid(), id from master"
              + " on conflict do nothing");
      s.execute(
          "insert into version (id, master_id, number, tree_id, note, items, frozen_by, frozen_at)"
              + " select gen_random_uuid(), m.id, n, m.draft_tree_id, 'v', 10, m.made_by, now()"
              + " from master m, generate_series(1, 3) n on conflict do nothing");
      s.execute(
          "insert into delivery (id, version_id, state, clash, twin, made_by, made_at)"
              + " select gen_random_uuid(), v.id, 'DONE', 'KEEP_SECTION', 'ADOPT', v.frozen_by, now()"
              + " from version v");
      s.execute(
          "insert into standing select s.id, v.master_id, v.id, d.id, 10, 10,"
              + " (random() * 3)::int, 0, now() from section s, version v join delivery d"
              + " on d.version_id = v.id"
              + " where v.number = 1 + abs(hashtext(s.code || v.master_id)::bigint) % 3"
              + " on conflict do nothing");
      s.execute("analyze");
    }
  }
}
