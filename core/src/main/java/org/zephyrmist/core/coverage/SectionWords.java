package org.zephyrmist.core.coverage;

import java.util.List;
import java.util.Locale;

/**
 * What is said of a section.
 *
 * @param course its code
 * @param campus its name
 * @param instructors names of those who teach
 */
public record SectionWords(
    String code, String title, String course, String campus, List<String> instructors) {
  public SectionWords {
    instructors = List.copyOf(instructors);
  }

  /** All that a text is looked for in, in small letters. */
  String all() {
    return String.join(" ", code, title, course, String.join(", ", instructors))
        .toLowerCase(Locale.ROOT);
  }
}
