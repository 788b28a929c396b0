package org.zephyrmist.core.roster;

import java.io.IOException;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/** What a bundle says of itself (OneRoster 1.1 CSV Tables, 4.1, "manifest.csv"). */
final class BundleManifest {
  /** How a file is meant. */
  enum Mode {
    BULK,
    DELTA,
    ABSENT
  }

  private static final Set<String> VERSIONS = Set.of("1.1", "1.2");
  private final Map<String, Mode> modes = new HashMap<>();

  private BundleManifest() {}

  /**
   * @throws RosterException if the version is none that is known, or a file that is announced is
   *     not there
   */
  static BundleManifest read(CsvBundle bundle, Remarks remarks)
      throws RosterException, IOException {
    BundleManifest m = new BundleManifest();
    Map<String, String> said = new HashMap<>();
    boolean there =
        bundle.rows(
            "manifest.csv", h -> {}, r -> said.put(r.text("propertyName"), r.text("value")));
    if (!there) {
      remarks.file(
          "manifest.csv",
          "The bundle has no manifest.csv, so it does not say which files are in full.",
          "Every file was taken as in full; export with a manifest if that is wrong.");
      return m;
    }
    String version = said.getOrDefault("oneroster.version", "").strip();
    if (!version.isEmpty() && !VERSIONS.contains(version)) {
      throw new RosterException(
          "manifest.csv says OneRoster version " + version + ", which is not known here.",
          "Export the bundle as OneRoster CSV 1.1 or 1.2.");
    }
    Set<String> lost = new TreeSet<>();
    for (Map.Entry<String, String> e : said.entrySet()) {
      if (e.getKey().startsWith("file.")) {
        String file = e.getKey().substring("file.".length()) + ".csv";
        Mode mode = mode(file, e.getValue());
        m.modes.put(file, mode);
        if (mode != Mode.ABSENT && !bundle.has(file)) {
          lost.add(file);
        } else if (mode == Mode.ABSENT && bundle.has(file)) {
          remarks.file(
              file, "manifest.csv says that it is absent, but it is there.", "It was left out.");
        }
      }
    }
    if (!lost.isEmpty()) {
      throw new RosterException(
          "manifest.csv announces " + String.join(", ", lost) + ", which the bundle does not hold.",
          "Export the bundle again, whole.");
    }
    return m;
  }

  private static Mode mode(String file, String value) throws RosterException {
    try {
      return Mode.valueOf(value.strip().toUpperCase(Locale.ROOT));
    } catch (IllegalArgumentException e) {
      throw new RosterException(
          "manifest.csv says “" + value + "” of " + file + "; it may be bulk, delta or absent.",
          "Export the bundle again.");
    }
  }

  Mode of(String file) {
    return modes.getOrDefault(file, Mode.BULK);
  }
}
