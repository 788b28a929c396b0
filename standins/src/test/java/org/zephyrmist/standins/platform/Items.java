package org.zephyrmist.standins.platform;

import java.util.List;
import java.util.Map;

/** Items of a shell for tests. */
final class Items {
  private Items() {}

  static Wire.Item of(
      String id,
      String kind,
      String parent,
      Map<String, Object> grading,
      Map<String, Object> timing,
      List<Map<String, Object>> conditions) {
    return new Wire.Item(
        id,
        kind,
        parent,
        id,
        new Wire.Wording(id, "", Map.of()),
        grading,
        timing,
        new Wire.Visibility(true, false, null, conditions),
        Map.of(),
        0,
        0,
        "Agnes Pell",
        null,
        1);
  }

  static Wire.Item page(String id, String parent, Map<String, Object> timing) {
    return of(id, "PAGE", parent, Map.of(), timing, null);
  }

  static Wire.Item opening(String id, Map<String, Object> condition) {
    return of(id, "PAGE", null, Map.of(), Map.of(), List.of(condition));
  }

  static Wire.Item column(String id, int points, String category) {
    Map<String, Object> in = category == null ? Map.of() : Map.of("category", category);
    Map<String, Object> grading = new java.util.HashMap<>(in);
    grading.put("points", points);
    return of(id, "ASSIGNMENT", null, grading, Map.of(), null);
  }
}
