package org.zephyrmist.bench;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;
import tools.jackson.databind.JsonNode;

/** How long the library takes to answer, with so many items in it. */
final class LibrarySearch {
  private static final double SECONDS = 0.2;
  private static final int PACKAGES = 10;
  private static final int CALLS = 20;
  private static final List<String> WORDS = List.of("", "plot", "lamp 17", "reading", "beam");
  private final int items;

  LibrarySearch(int items) {
    this.items = items;
  }

  Figure run() throws Exception {
    Path folder = Folders.fresh("library");
    Stage stage = Measuring.stage();
    try (stage) {
      College college = College.found(1, folder);
      for (int i = 0; i < PACKAGES; i++) {
        college.takeIn(Samples.titled(folder, items / PACKAGES, "Light for stage " + i));
      }
      settled(college, "plot");
      double[] seconds = new double[CALLS * WORDS.size()];
      for (int i = 0; i < seconds.length; i++) {
        String q = WORDS.get(i % WORDS.size()).replace(" ", "%20");
        seconds[i] = Stopwatch.seconds(() -> college.api.get("/api/library?q=" + q));
      }
      Arrays.sort(seconds);
      double slow = seconds[seconds.length * 95 / 100];
      int total = college.api.get("/api/library?q=").path("total").asInt();
      return Figure.of("library search, 95 of 100 calls", slow, SECONDS, 1.0, "s")
          .with("items", total);
    }
  }

  /** Until the words of all sources are known. */
  private static void settled(College college, String q) throws InterruptedException {
    int before = -1;
    int same = 0;
    while (same < 4) {
      JsonNode a = college.api.get("/api/library?q=" + q);
      int now = a.path("total").asInt();
      same = now == before && now > 0 ? same + 1 : 0;
      before = now;
      Thread.sleep(3_000);
    }
  }
}
