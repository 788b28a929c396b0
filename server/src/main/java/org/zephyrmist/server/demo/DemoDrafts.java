package org.zephyrmist.server.demo;

import static org.zephyrmist.server.db.Tables.MASTER;

import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.master.Drafts;

/** Changes to drafts by titles, as a designer would make them. */
@Component
@ConditionalOnProperty(name = "zephyrmist.demo", havingValue = "true")
class DemoDrafts {
  private final DSLContext db;
  private final Trees trees;
  private final Drafts edits;

  DemoDrafts(DSLContext db, Trees trees, Drafts edits) {
    this.db = db;
    this.trees = trees;
    this.edits = edits;
  }

  UUID draft(UUID master) {
    return db.select(MASTER.DRAFT_TREE_ID)
        .from(MASTER)
        .where(MASTER.ID.eq(master))
        .fetchSingle()
        .value1();
  }

  ItemKey find(UUID master, String title) {
    return trees.nodes(draft(master)).stream()
        .filter(n -> n.title().equals(title))
        .findFirst()
        .orElseThrow(() -> new IllegalStateException("No item " + title))
        .key();
  }

  ItemKey add(UUID draft, Kind kind, String title, String html, ItemKey parent) {
    String points = kind == Kind.ASSIGNMENT ? "10" : "";
    return edits.add(draft, kind, title, html, points, "", Optional.ofNullable(parent));
  }

  void change(UUID master, String title, String html) {
    edits.change(draft(master), find(master, title), changeOf(Optional.of(html), Optional.empty()));
  }

  void rewrite(UUID master, String title, String from, String to) {
    String html = AspectForms.html(trees.item(draft(master), find(master, title)).content());
    change(master, title, html.replace(from, to));
  }

  void rule(UUID draft, ItemKey key, EditRule rule) {
    edits.change(draft, key, changeOf(Optional.empty(), Optional.of(rule)));
  }

  /** A date and a signature, and five points more. */
  void exerciseThree(UUID master, DemoCourse c) {
    String html = "<p>" + c.weeks().get(2).exercise() + " Date it and sign it.</p>";
    edits.change(
        draft(master),
        find(master, "Exercise 3: " + lower(c.weeks().get(2).title())),
        new Drafts.Change(
            Optional.empty(),
            Optional.of(html),
            Optional.of("25"),
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            Optional.empty()));
  }

  static Drafts.Change changeOf(Optional<String> html, Optional<EditRule> rule) {
    return new Drafts.Change(
        Optional.empty(),
        html,
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        rule);
  }

  void remove(UUID master, String title) {
    edits.remove(draft(master), find(master, title));
  }

  static String lower(String s) {
    return s.substring(0, 1).toLowerCase(java.util.Locale.ROOT) + s.substring(1);
  }
}
