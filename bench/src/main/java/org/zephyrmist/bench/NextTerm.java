package org.zephyrmist.bench;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;
import tools.jackson.databind.JsonNode;

/**
 * A term brought into the next: from the question for the proposal to the plans of all sections.
 */
final class NextTerm {
  private static final double SECONDS = 10;

  /** Of so many sections, one has made a text its own. */
  private static final int OWN = 10;

  private final int sections;
  private final int items;

  NextTerm(int sections, int items) {
    this.sections = sections;
    this.items = items;
  }

  List<Figure> run() throws Exception {
    Path folder = Folders.fresh("next-term");
    try (Stage s = Measuring.stage()) {
      College college = College.found(2 * sections, folder);
      college.make(college.takeIn(Samples.cartridge(folder, items)));
      try (Connection db = s.connect()) {
        List<String> ids = college.sections(db);
        Deliver.deliver(college, ids.subList(0, sections));
        String terms = twoTerms(college, db, ids);
        texts(db);
        sayThatTextsGo(college, terms);
        double proposed = Coverage.percentile(() -> college.api.raw(terms));
        double planned = Stopwatch.seconds(() -> plan(college, terms));
        return List.of(
            figure(Figure.of("next term: proposed, 95th percentile", proposed, 1, 1.0, "s")),
            figure(
                Figure.of(
                    "next term: all sections planned, shells read", planned, SECONDS, 1.0, "s")));
      }
    }
  }

  private Figure figure(Figure f) {
    return f.with("sections", sections).with("items", items);
  }

  /** The second half of the sections is of the term after. */
  private String twoTerms(College college, Connection db, List<String> ids) throws Exception {
    String first = college.api.get("/api/coverage/terms").get(0).path("id").asString();
    String next = UUID.randomUUID().toString();
    try (PreparedStatement p =
            db.prepareStatement(
                "insert into term (id, sourced_id, title, first_day, last_day) select ?::uuid,"
                    + " 'next', 'Next', last_day + 30, last_day + 140 from term where id = ?::uuid");
        PreparedStatement q =
            db.prepareStatement("update section set term_id = ?::uuid where id = any(?::uuid[])")) {
      p.setString(1, next);
      p.setString(2, first);
      p.execute();
      q.setString(1, next);
      q.setArray(2, db.createArrayOf("text", ids.subList(sections, 2 * sections).toArray()));
      q.execute();
    }
    return "/api/coverage/next-term?from=" + first + "&to=" + next;
  }

  /** In every tenth section each page says what the section's first page says. */
  private static void texts(Connection db) throws Exception {
    try (PreparedStatement p =
        db.prepareStatement(
            "update holding h set here = substring(o.shown from 1 for 32) || substring(h.shown from"
                + " 33) from (select distinct on (section_id) section_id, item_key, shown from"
                + " holding where item_kind = 'PAGE' order by section_id, item_key) o where"
                + " o.section_id = h.section_id and h.item_kind = 'PAGE' and h.item_key <>"
                + " o.item_key and abs(hashtext(h.section_id::text)) % "
                + OWN
                + " = 0")) {
      p.execute();
    }
  }

  private static void sayThatTextsGo(College college, String terms) {
    String texts = terms.replace("?", "/texts?");
    for (JsonNode x : college.api.get(terms).path("texts")) {
      college.api.put(
          texts,
          Map.of(
              "master",
              x.path("master").asString(),
              "item",
              x.path("item").asString(),
              "onward",
              "AGAIN"));
    }
  }

  private static void plan(College college, String terms) {
    for (JsonNode d : college.api.post(terms, null).path("deliveries")) {
      for (JsonNode of :
          college.api.get("/api/deliveries/" + d.asString()).path("together").isEmpty()
              ? List.of(d)
              : college.api.get("/api/deliveries/" + d.asString()).path("together")) {
        college.awaitLeaves(of.isString() ? of.asString() : of.path("id").asString(), "PLANNING");
      }
    }
  }
}
