package org.zephyrmist.bench;

import java.util.LinkedHashMap;
import java.util.Map;
import org.zephyrmist.stage.Caller;

/**
 * One measured figure: a ratio against the raw baseline of the same run, and what it was made of.
 *
 * @param goal largest ratio we reach for
 */
record Figure(String name, double ratio, double goal, Map<String, Object> of) {
  static Figure of(String name, double measured, double baseline, double goal, String unit) {
    Map<String, Object> of = new LinkedHashMap<>();
    of.put("measured", rounded(measured));
    of.put("baseline", rounded(baseline));
    of.put("unit", unit);
    return new Figure(name, rounded(measured / baseline), goal, of);
  }

  Figure with(String what, Object value) {
    of.put(what, value);
    return this;
  }

  private static double rounded(double d) {
    return Math.round(d * 1000) / 1000.0;
  }

  /** One line of JSON. */
  String line() {
    Map<String, Object> all = new LinkedHashMap<>();
    all.put("figure", name);
    all.put("ratio", ratio);
    all.put("goal", goal);
    all.put("reached", ratio <= goal);
    all.putAll(of);
    return Caller.JSON.writeValueAsString(all);
  }
}
