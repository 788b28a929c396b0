package org.zephyrmist.bench;

import java.nio.file.Path;
import java.sql.Connection;
import java.util.List;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Samples;
import org.zephyrmist.stage.Stage;
import tools.jackson.databind.JsonNode;

/** Delivering to many sections, against the same calls and rows without the product; and again. */
final class Deliver {
  private final int sections;
  private final int items;

  Deliver(int sections, int items) {
    this.sections = sections;
    this.items = items;
  }

  List<Figure> run() throws Exception {
    Path folder = Folders.fresh("deliver");
    try (Stage s = Measuring.stage()) {
      College college = prepared(s, folder, sections);
      try (Connection db = s.connect()) {
        List<String> ids = college.sections(db);
        warm(college, ids);
        double baseline = new RawDelivery(college.practice, items).run(db, sections - WARM);
        String delivery = college.plan(college.newest(), ids.subList(WARM, sections));
        double first = run(college, delivery);
        double again = deliver(college, ids.subList(WARM, sections));
        double back = run(college, college.takeBack(delivery));
        return List.of(
            Figure.of("take back", back, first, 1.2, "s").with("sections", sections - WARM),
            Figure.of("deliver", first, baseline, 1.5, "s")
                .with("sections", sections - WARM)
                .with("items", items),
            Figure.of("deliver again, nothing to do", again, first, 0.05, "s")
                .with("sections", sections - WARM));
      }
    }
  }

  /** Ten times the sections, against ten times the time of a tenth. */
  Figure tenTimes() throws Exception {
    Path folder = Folders.fresh("deliver");
    try (Stage s = Measuring.stage()) {
      College college = prepared(s, folder, sections * 11 + WARM);
      try (Connection db = s.connect()) {
        List<String> ids = college.sections(db);
        warm(college, ids);
        double one = deliver(college, ids.subList(WARM, WARM + sections));
        double ten = deliver(college, ids.subList(WARM + sections, WARM + sections * 11));
        return Figure.of("deliver to ten times the sections", ten, 10 * one, 1.1, "s")
            .with("sections", sections * 10)
            .with("items", items);
      }
    }
  }

  private static final int WARM = 12;

  private College prepared(Stage s, Path folder, int many) throws Exception {
    College college = College.found(many, folder);
    college.make(college.takeIn(Samples.cartridge(folder, items)));
    return college;
  }

  private static void warm(College college, List<String> ids) {
    deliver(college, ids.subList(0, WARM));
    deliver(college, ids.subList(0, WARM));
  }

  /** From the confirmation to the end, in seconds; the plan is measured elsewhere. */
  static double deliver(College college, List<String> sections) {
    return run(college, college.plan(college.newest(), sections));
  }

  private static double run(College college, String delivery) {
    long start = System.nanoTime();
    college.confirm(delivery);
    JsonNode end = college.awaitLeaves(delivery, "RUNNING");
    double seconds = (System.nanoTime() - start) / 1e9;
    for (JsonNode l : end.path("lines")) {
      if (!l.path("state").asString().equals("DONE")) {
        throw new IllegalStateException(l.toString());
      }
    }
    return seconds;
  }
}
