package org.zephyrmist.bench.history;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.zephyrmist.stage.Caller;
import tools.jackson.databind.JsonNode;

/** Two designers at one draft. */
final class Designers {
  private static final String TEXT =
      "<p>Write the load beside every lantern.</p><ul><li>Gloves on.</li><li>Count the lamps.</li></ul>"
          + "<table><tbody><tr><td>Circuit</td><td>2,400 watts</td></tr></tbody></table>"
          + "<p>Ask before you open the grid.</p>";

  private final Turn of;

  Designers(Turn of) {
    this.of = of;
  }

  void items() {
    String week = add("MODULE", "Week", "", null);
    for (int i = 0; i < 4; i++) {
      add("PAGE", "Reading " + i, TEXT, i < 2 ? week : null);
    }
    add("ASSIGNMENT", "Plot", TEXT, week);
    add("DISCUSSION", "Talk", TEXT, week);
  }

  private String add(String kind, String title, String html, String parent) {
    Map<String, Object> body = new HashMap<>(Map.of("kind", kind, "title", title));
    if (!html.isEmpty()) {
      body.put("html", html);
    }
    if (parent != null) {
      body.put("parent", parent);
    }
    return of.stage().designer().post(draft() + "/items", body).path("key").asString();
  }

  private String draft() {
    return "/api/masters/" + of.master() + "/draft";
  }

  List<JsonNode> draftItems(String... kinds) {
    List<String> wanted = List.of(kinds);
    return of.stage()
        .designer()
        .get("/api/masters/" + of.master() + "/versions/0/outline")
        .valueStream()
        .filter(n -> wanted.isEmpty() || wanted.contains(n.path("kind").asString()))
        .toList();
  }

  /** What stays of a title whatever it is renamed to. */
  static String first(String title) {
    return title.split(" of ")[0];
  }

  /** Keys of what the newest version says that sections may not change. */
  Set<String> fixed() {
    return fixed("key").collect(Collectors.toSet());
  }

  /** What stays of their titles. */
  Set<String> fixedTitles() {
    return fixed("title").map(Designers::first).collect(Collectors.toSet());
  }

  private Stream<String> fixed(String what) {
    JsonNode master = of.stage().designer().get("/api/masters/" + of.master());
    return of.stage()
        .designer()
        .get(
            "/api/masters/"
                + of.master()
                + "/versions/"
                + master.path("versions").size()
                + "/outline")
        .valueStream()
        .filter(n -> n.path("rule").asString().equals("FIXED"))
        .map(n -> n.path(what).asString());
  }

  String designer() {
    Caller who = of.random().nextBoolean() ? of.stage().designer() : of.stage().colleague();
    List<JsonNode> all = draftItems("PAGE", "ASSIGNMENT", "DISCUSSION");
    int n = of.random().nextInt(13);
    if (n == 0 || all.isEmpty()) {
      String title = "New " + of.step();
      who.post(draft() + "/items", Map.of("kind", "PAGE", "title", title, "html", TEXT));
      return of.note("item added", title);
    }
    JsonNode item = of.any(all);
    String title = item.path("title").asString();
    String key = item.path("key").asString();
    if (n == 1 && all.size() > 3) {
      who.post(draft() + "/take-out", Map.of("keys", List.of(key)));
      return of.note("item taken out", title);
    } else if (n == 2) {
      who.patch(draft() + "/items/" + key, Map.of("title", first(title) + " of " + of.step()));
      return of.note("item renamed", title);
    } else if (n < 5) {
      who.post(draft() + (n == 3 ? "/undo" : "/redo"), null);
      return of.note(n == 3 ? "undone" : "done again", "");
    } else if (n < 7) {
      freeze();
      return of.note("frozen", "");
    }
    if (n == 12) {
      String rule = of.any(List.of("FIXED", "STARTER", "ADAPTABLE"));
      who.patch(draft() + "/items/" + key, Map.of("rule", rule));
      return of.note("edit rule", title + " " + rule);
    }
    String html =
        who.get("/api/masters/" + of.master() + "/versions/0/items/" + key).path("html").asString();
    String word = "new" + of.step() + "x" + of.random().nextInt(1_000);
    who.patch(
        draft() + "/items/" + key,
        Map.of("html", Words.within(of, html.isEmpty() ? TEXT : html, word)));
    return of.note("text of the draft", title + " " + word);
  }

  void freeze() {
    try {
      of.stage()
          .designer()
          .post("/api/masters/" + of.master() + "/versions", Map.of("note", "Step " + of.step()));
    } catch (Caller.Failed nothingNew) {
      if (nothingNew.status >= 500) {
        throw nothingNew;
      }
    }
  }

  /** Whatever was mixed, undoing ends, and nobody is stuck. */
  void draftEnds() {
    for (Caller who : List.of(of.stage().designer(), of.stage().colleague())) {
      for (int i = 0; ; i++) {
        try {
          who.post(draft() + "/undo", null);
        } catch (Caller.Failed e) {
          if (e.status == 422) {
            break;
          }
          if (e.status != 409) { // a step that somebody else wrote over stays, the next is tried
            throw new Oracle.Broken("undo is stuck: " + e.getMessage());
          }
        }
        if (i > 10 * (of.step() + 20)) {
          throw new Oracle.Broken("undo does not end");
        }
      }
    }
  }
}
