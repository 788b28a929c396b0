package org.zephyrmist.bench;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.zephyrmist.stage.Caller;
import org.zephyrmist.stage.Practice;
import tools.jackson.databind.JsonNode;

/** Instructors at work in their shells; remembers what they did, to see whether it lasts. */
final class Instructors {
  private static final Set<String> WRITTEN = Set.of("PAGE", "SETUP");
  private final Random random;
  private final Map<String, String> lastTextByItem = new HashMap<>();
  private final Set<String> deleted = new HashSet<>();
  private int n;

  Instructors(Random random) {
    this.random = random;
  }

  /** The mark that must still stand in an item's text. */
  Map<String, String> texts() {
    return lastTextByItem;
  }

  Set<String> deleted() {
    return deleted;
  }

  /** One thing in one shell. */
  void act(Practice practice, String shell, Map<String, Integer> did) {
    try {
      List<JsonNode> pages = new ArrayList<>();
      for (JsonNode i : practice.items(shell)) {
        if (WRITTEN.contains(i.path("kind").asString())) {
          pages.add(i);
        }
      }
      int what = random.nextInt(10);
      if (pages.isEmpty() || what == 0) {
        practice.form(
            "/shells/" + shell + "/add",
            Map.of("title", "Own page " + n++, "html", "<p>Mine.</p>"));
        did.merge("page added by an instructor", 1, Integer::sum);
        return;
      }
      JsonNode page = pages.get(random.nextInt(pages.size()));
      String id = page.path("id").asString();
      String path = "/shells/" + shell + "/items/" + id;
      boolean setup = page.path("kind").asString().equals("SETUP");
      if (what == 1 && !setup) {
        deleted.add(id);
        practice.form(path + "/delete", Map.of());
        did.merge("item deleted by an instructor", 1, Integer::sum);
      } else if (what < 4 && !setup) {
        practice.form(path + "/due", Map.of("due", "2026-10-0" + (1 + n++ % 9) + "T18:00"));
        did.merge("date set by an instructor", 1, Integer::sum);
      } else {
        String mark = "Mine number " + n++;
        practice.form(
            path + "/text",
            Map.of(
                "title",
                page.path("wording").path("title").asString(),
                "html",
                "<p>" + mark + "</p>"));
        lastTextByItem.put(id, mark);
        did.merge("text written by an instructor", 1, Integer::sum);
      }
    } catch (Caller.Failed e) {
      did.merge("not possible just then", 1, Integer::sum);
    }
  }
}
