package org.zephyrmist.core.delivery;

import java.time.LocalDate;
import java.util.Optional;
import java.util.Set;

/**
 * What is known of a section when it is decided what an item becomes there.
 *
 * @param campus sourced id
 * @param mode way of teaching; empty if the roster does not tell
 * @param begins first day of its term
 */
public record SectionFacts(
    String campus, String mode, Set<String> tags, Optional<LocalDate> begins) {
  /** Of no term. */
  public SectionFacts(String campus, String mode, Set<String> tags) {
    this(campus, mode, tags, Optional.empty());
  }

  public SectionFacts {
    tags = Set.copyOf(tags);
  }
}
