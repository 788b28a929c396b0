package org.zephyrmist.bench;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Ledger and platform side by side, item by item. */
final class Agreement {
  private static final String NEWEST =
      " (select distinct on (master_id) * from version order by master_id, number desc) v";
  private static final Duration MAIL_GOES_WITHIN = Duration.ofMinutes(1);
  private static final String OPEN = "sent_at is null and problem is null";
  private static final int TOLD = 30;
  private final Connection db;
  private final Instructors instructors;
  private final List<String> faults = new ArrayList<>();

  Agreement(Connection db, Instructors instructors) {
    this.db = db;
    this.instructors = instructors;
  }

  /** Mail goes out within seconds of the end; then it has to have gone. */
  private void awaitMail() throws SQLException {
    Instant end = Instant.now().plus(MAIL_GOES_WITHIN);
    while (Instant.now().isBefore(end)) {
      try (Statement s = db.createStatement();
          ResultSet r = s.executeQuery("select 1 from mail where " + OPEN)) {
        if (!r.next()) {
          return;
        }
      }
      College.pause(500);
    }
  }

  /**
   * @param secret that every shell has to have for the tool
   */
  void tool(String secret) throws SQLException {
    none(
        "a shell with links to the tool has not its own key and the last secret",
        "select s.sourced_id || ' ' || coalesce(d.key || ' ' || d.secret, 'nothing') from section s"
            + " join holding h on h.section_id = s.id and h.item_kind = 'TOOL_LINK' and h.here is"
            + " not null left join practice.tool_data d on d.shell_id = s.shell and d.host = '"
            + ToolUnderway.HOST
            + "' where (d.key, d.secret) is distinct from ('larkmoor-' || s.sourced_id, '"
            + secret
            + "')");
    none(
        "a shell is said to be written to, and is not",
        "select s.sourced_id from section_tool t join section s on s.id = t.section_id"
            + " where t.written_at is not null and not exists (select 1 from practice.tool_data d"
            + " where d.shell_id = s.shell and d.host = t.host)");
  }

  /**
   * @param words that a change alike in all shells has replaced
   */
  void gone(String words) throws SQLException {
    none(
        "words stand in a text that were replaced everywhere",
        "select shell_id || ' ' || title from practice.item where html like '%' || (?::text[])[1]"
            + " || '%'",
        new String[] {words});
  }

  void check() throws SQLException {
    awaitMail();
    none(
        "an item is on the platform that no receipt knows",
        "select i.shell_id || ' ' || i.title from practice.item i"
            + " where i.title not like 'Own page %' and not exists"
            + " (select 1 from holding h where h.platform_item = i.id)");
    none(
        "an item is on the platform twice",
        "select i.shell_id || ' ' || i.title from practice.item i"
            + " join holding h on h.platform_item = i.id"
            + " group by i.shell_id, h.master_id, i.title having count(*) > 1");
    none(
        "a shell has two front pages",
        "select shell_id from practice.item where wording ->> 'subject' = 'FRONT_PAGE'"
            + " group by shell_id having count(*) > 1");
    none(
        "the ledger sees an item that the platform has not",
        "select s.sourced_id || ' ' || h.title from holding h join section s on s.id = h.section_id"
            + " where h.here is not null and not exists"
            + " (select 1 from practice.item i where i.id = h.platform_item"
            + "   and i.shell_id = s.shell)");
    none(
        "an item of the version has neither come nor been deleted",
        "select s.sourced_id || ' ' || t.title from section s cross join"
            + NEWEST
            + " join tree_item t on t.tree_id = v.tree_id where not exists"
            + " (select 1 from holding h where h.section_id = s.id and h.master_id = v.master_id"
            + "   and h.item_key = t.item_key)"
            // once is enough where another master has the same there
            + " and not exists (select 1 from holding o where o.section_id = s.id"
            + "   and o.master_id <> v.master_id and o.item_kind = t.kind and o.title = t.title"
            + "   and o.here is not null)");
    none(
        "an item is gone that nobody deleted",
        "select s.sourced_id || ' ' || h.title || ' ' || h.platform_item from holding h"
            + " join section s on s.id = h.section_id where h.here is null"
            + " and not h.platform_item = any(?)",
        instructors.deleted().toArray(String[]::new));
    none(
        "an untouched item is not as the newest version says",
        "select s.sourced_id || ' ' || h.title from holding h"
            + " join section s on s.id = h.section_id"
            + " join"
            + NEWEST
            + " on v.master_id = h.master_id"
            + " join tree_item t on t.tree_id = v.tree_id and t.item_key = h.item_key"
            + " where h.here = h.shown and h.sent <> t.aspects and h.item_kind <> 'SETUP'");
    none(
        "a section is still taken, or a step not receipted",
        "select sourced_id from section where busy_line is not null"
            + " union all select title from delivery_step where sent and not recorded");
    none(
        "a standing is not what its holdings say",
        "select s.sourced_id from standing st join section s on s.id = st.section_id"
            + " where st.held <> (select count(*) from holding h join version v on v.id ="
            + "   st.version_id join tree_item t on t.tree_id = v.tree_id and t.item_key = h.item_key"
            + "   where h.section_id = st.section_id and h.master_id = st.master_id"
            + "   and h.here is not null) - st.withheld");
    none("mail was neither sent nor came back", "select subject from mail where " + OPEN);
    texts();
    if (!faults.isEmpty()) {
      int told = Math.min(faults.size(), TOLD);
      throw new IllegalStateException(
          faults.size() + " faults:\n" + String.join("\n", faults.subList(0, told)));
    }
  }

  private void none(String fault, String query, String[]... values) throws SQLException {
    try (var s = db.prepareStatement(query)) {
      for (int i = 0; i < values.length; i++) {
        s.setArray(i + 1, db.createArrayOf("text", values[i]));
      }
      try (ResultSet r = s.executeQuery()) {
        while (r.next()) {
          faults.add(fault + ": " + r.getString(1));
        }
      }
    }
  }

  /** What an instructor wrote last is still there. */
  private void texts() throws SQLException {
    try (Statement s = db.createStatement();
        ResultSet r = s.executeQuery("select id, shell_id, title, html from practice.item")) {
      while (r.next()) {
        for (Map.Entry<String, String> e : instructors.texts().entrySet()) {
          if (e.getKey().equals(r.getString(1)) && !r.getString(4).contains(e.getValue() + "<")) {
            faults.add(
                "what an instructor wrote was overwritten: "
                    + r.getString(2)
                    + " "
                    + r.getString(3)
                    + ", wanted "
                    + e.getValue()
                    + ", is "
                    + r.getString(4));
          }
        }
      }
    }
  }
}
