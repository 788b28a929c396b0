package org.zephyrmist.bench;

import java.util.List;
import java.util.Map;
import org.zephyrmist.stage.Stage;

/** Where is measured: on a stage for each figure, or on one for many small ones in a row. */
public final class Measuring {
  private static final String HEAP = "-Xmx1g";

  private Measuring() {}

  public static Stage stage() throws Exception {
    return stage(Map.of());
  }

  /**
   * @param settings of the server, as environment variables
   */
  static Stage stage(Map<String, String> settings) throws Exception {
    return stage(HEAP, settings);
  }

  /**
   * @param heap option of the server's Java; the shared one has its own
   */
  static Stage stage(String heap, Map<String, String> settings) throws Exception {
    return Boolean.getBoolean("short.life")
        ? Stage.shared("bench", settings, List.of(HEAP))
        : new Stage("bench", settings, List.of(heap)).open(1);
  }
}
