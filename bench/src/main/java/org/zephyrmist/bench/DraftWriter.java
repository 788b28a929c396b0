package org.zephyrmist.bench;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.zephyrmist.stage.Caller;
import org.zephyrmist.stage.Stage;
import tools.jackson.databind.JsonNode;

/** Works on a draft as people do; what was acknowledged has to be there in the end. */
final class DraftWriter implements Runnable {
  private final int writer;
  private final String master;
  private final String path;
  private final Instant end;
  private final List<String> faults;

  /**
   * @param faults to which is added what was lost
   */
  DraftWriter(int writer, String master, Instant end, List<String> faults) {
    this.writer = writer;
    this.master = master;
    this.path = "/api/masters/" + master + "/draft/items";
    this.end = end;
    this.faults = faults;
  }

  @Override
  public void run() {
    Caller mine = new Caller(Stage.address(0));
    mine.signIn("ines@larkmoor.example", College.PASSWORD);
    try {
      String key =
          mine.post(path, Map.of("kind", "ASSIGNMENT", "title", "Mine " + writer))
              .path("key")
              .asString();
      String module =
          mine.post(path, Map.of("kind", "MODULE", "title", "Module " + writer))
              .path("key")
              .asString();
      Map<String, String> said = new TreeMap<>();
      int added = 0;
      for (int n = 0; Instant.now().isBefore(end) && faults.size() < 20; n++) {
        String field = List.of("title", "html", "points").get(n % 3);
        String value =
            field.equals("points")
                ? String.valueOf(n % 100)
                : field.equals("title") ? "Mine " + writer + "-" + n : "<p>" + n + "</p>";
        mine.patch(path + "/" + key, Map.of(field, value));
        said.put(field, value);
        if (n % 5 == 0) {
          mine.post(path, Map.of("kind", "PAGE", "title", "Page " + n, "parent", module));
          added++;
        }
        if (n % 7 == 0) {
          mine.post(path + "/" + key + "/place", n % 2 == 0 ? Map.of("parent", module) : Map.of());
        }
      }
      check(mine, key, module, said, added);
    } catch (RuntimeException e) {
      faults.add("writer " + writer + ": " + e);
    }
  }

  private void check(Caller mine, String key, String module, Map<String, String> said, int added) {
    JsonNode item = mine.get("/api/masters/" + master + "/versions/0/items/" + key);
    said.forEach(
        (field, value) -> {
          if (!item.path(field).asString().equals(value)) {
            faults.add(
                "lost: "
                    + field
                    + " of writer "
                    + writer
                    + " should be "
                    + value
                    + ", is "
                    + item.path(field));
          }
        });
    int there = 0;
    for (JsonNode n : mine.get("/api/masters/" + master + "/versions/0/outline")) {
      boolean page = n.path("title").asString().startsWith("Page ");
      there += page && n.path("parent").asString("").equals(module) ? 1 : 0;
    }
    if (there != added) {
      faults.add("lost: writer " + writer + " added " + added + " pages, " + there + " are there");
    }
  }
}
