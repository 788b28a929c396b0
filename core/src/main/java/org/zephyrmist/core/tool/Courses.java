package org.zephyrmist.core.tool;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Courses on a tool's side that launches of sections name. */
public final class Courses {
  private static final int MOST = 200;

  private Courses() {}

  /** Of one section, without blanks; none if a value is not known. */
  public static Optional<String> of(Template pattern, SectionPlace s) {
    return pattern.filled(s::value).map(c -> c.strip().replaceAll("\\s+", "-"));
  }

  /** Why no courses can be named so. */
  public static final class NotNamed extends RuntimeException {
    private static final long serialVersionUID = 1;

    NotNamed(String why) {
      super(why);
    }
  }

  /**
   * The course of each section, in their order. No two have the same, and none has one that another
   * section is tied to.
   *
   * @param pattern of the section's values
   * @param tied courses that are known, with the sections that are tied to each
   * @throws NotNamed with what is wrong, to be shown
   */
  public static List<String> named(
      Template pattern, List<SectionPlace> sections, Map<String, Set<String>> tied) {
    Map<String, String> mine = new HashMap<>();
    return sections.stream()
        .map(
            s -> {
              String course =
                  of(pattern, s)
                      .orElseThrow(
                          () ->
                              new NotNamed(
                                  "One of its values is not known of " + s.section() + "."));
              if (course.isEmpty() || course.length() > MOST) {
                throw new NotNamed("A course is named by 1 to " + MOST + " signs.");
              }
              String other = mine.putIfAbsent(course, s.section());
              if (other != null) {
                throw new NotNamed(
                    other + " and " + s.section() + " would both come to " + course + ".");
              }
              tied.getOrDefault(course, Set.of()).stream()
                  .filter(t -> !t.equals(s.section()))
                  .min(Comparator.naturalOrder())
                  .ifPresent(
                      t -> {
                        throw new NotNamed(t + " is tied to " + course + " already.");
                      });
              return course;
            })
        .toList();
  }
}
