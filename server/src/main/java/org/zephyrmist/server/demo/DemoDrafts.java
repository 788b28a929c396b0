package org.zephyrmist.server.demo;

import static org.zephyrmist.server.db.Tables.MASTER;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.UnaryOperator;
import org.jooq.DSLContext;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.master.Drafts;
import org.zephyrmist.server.master.ItemChange;
import org.zephyrmist.server.people.People;
import org.zephyrmist.server.people.SignedIn;
import tools.jackson.databind.json.JsonMapper;

/** Changes to drafts by titles, as a designer would make them. */
@Component
@ConditionalOnProperty(name = "zephyrmist.demo", havingValue = "true")
class DemoDrafts {
  private final DSLContext db;
  private final Trees trees;
  private final Drafts edits;
  private final People people;
  private final JsonMapper json;

  DemoDrafts(DSLContext db, Trees trees, Drafts edits, People people, JsonMapper json) {
    this.json = json;
    this.people = people;
    this.db = db;
    this.trees = trees;
    this.edits = edits;
  }

  MasterRecord draft(UUID master) {
    return db.selectFrom(MASTER).where(MASTER.ID.eq(master)).fetchSingle();
  }

  private SignedIn designer() {
    return people.loadUserByUsername("teodor@larkmoor.example");
  }

  ItemKey find(UUID master, String title) {
    return trees.tree(draft(master).getDraftTreeId()).nodes().stream()
        .filter(n -> n.title().equals(title))
        .findFirst()
        .orElseThrow(() -> new IllegalStateException("No item " + title))
        .key();
  }

  ItemKey add(MasterRecord draft, Kind kind, String title, String html, ItemKey parent) {
    String points = kind == Kind.ASSIGNMENT ? "10" : "";
    return edits.add(
        draft,
        new Drafts.Addition(
            kind,
            title,
            html,
            points,
            "",
            Optional.empty(),
            Optional.ofNullable(parent),
            Optional.empty()),
        designer());
  }

  void change(UUID master, String title, String html) {
    change(master, find(master, title), Map.of("html", html));
  }

  /** What is to change by its name in the API. */
  void change(UUID master, ItemKey key, Map<String, ?> what) {
    edits.change(draft(master), key, json.convertValue(what, ItemChange.class), designer());
  }

  /** Every item as one step. */
  void rewrite(UUID master, String what, UnaryOperator<Aspects> how) {
    edits.rewrite(draft(master), what, how, designer());
  }

  void rewrite(UUID master, String title, String from, String to) {
    String html = trees.item(draft(master).getDraftTreeId(), find(master, title)).content().html();
    change(master, title, html.replace(from, to));
  }

  void rule(MasterRecord draft, ItemKey key, EditRule rule) {
    change(draft.getId(), key, Map.of("rule", rule));
  }

  /** A date and a signature, and five points more. */
  void exerciseThree(UUID master, DemoCourse c) {
    String html = "<p>" + c.weeks().get(2).exercise() + " Date it and sign it.</p>";
    ItemKey exercise = find(master, "Exercise 3: " + lower(c.weeks().get(2).title()));
    change(master, exercise, Map.of("html", html, "points", "25"));
  }

  /** Ties items to each other. */
  void tie(UUID master, List<ItemKey> keys) {
    edits.tie(draft(master), keys, true, designer());
  }

  void remove(UUID master, String title) {
    edits.remove(draft(master), List.of(find(master, title)), "", designer());
  }

  static String lower(String s) {
    return s.substring(0, 1).toLowerCase(Locale.ROOT) + s.substring(1);
  }
}
