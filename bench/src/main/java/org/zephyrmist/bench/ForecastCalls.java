package org.zephyrmist.bench;

import java.nio.file.Path;
import java.sql.Connection;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;

/** How soon the totals of a delivery follow a change of its choices. */
final class ForecastCalls {
  private static final double SECOND = 1.0;
  private static final int CALLS = 20;
  private static final List<String> WHAT = List.of("EVERYTHING", "CHANGED", "SOME");
  private final int sections;
  private final int items;

  ForecastCalls(int sections, int items) {
    this.sections = sections;
    this.items = items;
  }

  Figure run() throws Exception {
    Path folder = Folders.fresh("forecast");
    try (Stage s = Measuring.stage()) {
      College college = College.found(sections, folder);
      college.make(college.takeIn(Samples.cartridge(folder, items)));
      try (Connection db = s.connect()) {
        List<String> ids = college.sections(db);
        Deliver.deliver(college, ids);
        double[] seconds = new double[CALLS];
        double first = 0;
        for (int i = -1; i < CALLS; i++) {
          Map<String, Object> parts =
              Map.of("what", WHAT.get((i + 1) % WHAT.size()), "kinds", List.of("QUIZ", "PAGE"));
          Map<String, Object> body =
              Map.of(
                  "version",
                  college.newest(),
                  "sections",
                  ids,
                  "choices",
                  Map.of("clash", "KEEP_SECTION", "twin", "ADOPT", "parts", parts));
          double took = Stopwatch.seconds(() -> college.api.post("/api/deliveries/forecast", body));
          if (i < 0) {
            first = took;
          } else {
            seconds[i] = took;
          }
        }
        Arrays.sort(seconds);
        return Figure.of(
                "forecast after a choice, 95 of 100", seconds[CALLS * 95 / 100], SECOND, 1.0, "s")
            .with("sections", sections)
            .with("items", items)
            .with("first", first);
      }
    }
  }
}
