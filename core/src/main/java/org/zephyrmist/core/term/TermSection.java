package org.zephyrmist.core.term;

import java.util.Set;

/**
 * A section of a term.
 *
 * @param instructors who teach it
 */
public record TermSection(
    String id, String code, String course, String campus, Set<String> instructors) {
  public TermSection {
    instructors = Set.copyOf(instructors);
  }

  public boolean sharesInstructor(TermSection other) {
    return instructors.stream().anyMatch(other.instructors::contains);
  }
}
