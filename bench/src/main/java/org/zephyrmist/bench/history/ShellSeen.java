package org.zephyrmist.bench.history;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Predicate;
import org.zephyrmist.stage.Practice;
import tools.jackson.databind.JsonNode;

/** What stands in a shell, by the platform alone. */
record ShellSeen(Map<String, Thing> items) {
  /**
   * An item.
   *
   * @param left how much students left on it
   */
  record Thing(
      String id,
      String kind,
      String title,
      String html,
      String rest,
      int left,
      boolean shown,
      String parent,
      String rank) {
    boolean says(String word) {
      return title.contains(word) || html.contains(word);
    }

    /** All of it but what the platform calls it. */
    String whole() {
      return kind + " | " + title + " | " + html + " | " + rest + " | " + shown;
    }

    boolean written() {
      return kind.equals("PAGE") || kind.equals("ASSIGNMENT") || kind.equals("DISCUSSION");
    }
  }

  static ShellSeen read(Practice practice, String shell) {
    Map<String, Thing> all = new LinkedHashMap<>();
    for (JsonNode n : practice.items(shell)) {
      JsonNode w = n.path("wording");
      all.put(
          n.path("id").asString(),
          new Thing(
              n.path("id").asString(),
              n.path("kind").asString(),
              w.path("title").asString(),
              w.path("html").asString(""),
              n.path("grading") + " " + n.path("timing"),
              n.path("submissions").asInt(0) + n.path("posts").asInt(0),
              n.path("visibility").path("shown").asBoolean(true),
              n.path("parent").asString(""),
              n.path("rank").asString("")));
    }
    return new ShellSeen(all);
  }

  /** Platforms make the modules of packages a second time. */
  ShellSeen withoutModules() {
    Map<String, Thing> all = new LinkedHashMap<>(items);
    all.values().removeIf(i -> i.kind().equals("MODULE"));
    return new ShellSeen(all);
  }

  /** Whether one of some items says it. */
  boolean says(String word, Predicate<Thing> of) {
    return items.values().stream().anyMatch(i -> i.says(word) && of.test(i));
  }

  boolean says(String word) {
    return items.values().stream().anyMatch(i -> i.says(word));
  }

  List<Thing> written() {
    return items.values().stream().filter(Thing::written).toList();
  }

  /** Everything that stands there and where, whatever it is called; addresses are left out. */
  Map<String, Integer> contents() {
    Map<String, Integer> all = new TreeMap<>();
    for (Thing i : items.values()) {
      String in = items.containsKey(i.parent()) ? items.get(i.parent()).title() : "";
      String what = i.whole().replaceAll("/items/[0-9a-f]+", "/items/x");
      all.merge(what + " | in " + in + " at " + i.rank(), 1, Integer::sum);
    }
    return all;
  }

  /** Kinds and titles that stand there more than once. */
  List<String> twice() {
    Map<String, Integer> seen = new TreeMap<>();
    items.values().forEach(i -> seen.merge(i.kind() + " “" + i.title() + "”", 1, Integer::sum));
    List<String> twice = new ArrayList<>();
    seen.forEach(
        (what, n) -> {
          if (n > 1) {
            twice.add(what);
          }
        });
    return twice;
  }
}
