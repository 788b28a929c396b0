package org.zephyrmist.core.delivery;

import java.util.Set;

/**
 * What is known of a section when it is decided what an item becomes there.
 *
 * @param campus sourced id
 * @param mode way of teaching; empty if the roster does not tell
 */
public record SectionFacts(String campus, String mode, Set<String> tags) {
  public SectionFacts {
    tags = Set.copyOf(tags);
  }
}
