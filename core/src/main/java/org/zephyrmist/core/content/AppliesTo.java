package org.zephyrmist.core.content;

import java.util.Set;

/**
 * The sections an item is meant for; others never get it. Where nothing is named, all are meant.
 *
 * @param campuses sourced ids of campuses
 * @param modes ways of teaching, for instance "online"
 * @param tags of which a section must have at least one
 * @param nobody it stays in the master: a note from builder to builder
 */
public record AppliesTo(Set<String> campuses, Set<String> modes, Set<String> tags, boolean nobody) {
  public static final AppliesTo EVERY_SECTION = new AppliesTo(Set.of(), Set.of(), Set.of());
  public static final AppliesTo NOBODY = new AppliesTo(Set.of(), Set.of(), Set.of(), true);

  public AppliesTo {
    campuses = Set.copyOf(campuses);
    modes = Set.copyOf(modes);
    tags = Set.copyOf(tags);
  }

  public AppliesTo(Set<String> campuses, Set<String> modes, Set<String> tags) {
    this(campuses, modes, tags, false);
  }

  /** Whether a section that has these is meant. */
  public boolean covers(String campus, String mode, Set<String> sectionTags) {
    return !nobody
        && (campuses.isEmpty() || campuses.contains(campus))
        && (modes.isEmpty() || modes.contains(mode))
        && (tags.isEmpty() || tags.stream().anyMatch(sectionTags::contains));
  }
}
