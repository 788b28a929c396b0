package org.zephyrmist.core.roster;

import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The college as earlier rosters left it, by sourcedId: what a bundle of changes may refer to, and
 * what a roster is compared with.
 *
 * @param programs names
 * @param campuses names
 * @param addresses of people, in small letters, with the sourcedId of whose they are; with none
 *     where a person was admitted by hand
 */
public record Present(
    Map<String, String> programs,
    Map<String, String> campuses,
    Map<String, Roster.Term> terms,
    Map<String, Roster.Course> courses,
    Map<String, Kept> sections,
    Map<String, Teacher> people,
    Map<String, Optional<String>> addresses) {
  public static final Present NOTHING =
      new Present(Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of());

  /**
   * A section.
   *
   * @param inRoster false where an earlier roster had lost it
   */
  public record Kept(Roster.Section section, boolean inRoster, Set<Roster.Teaching> teaching) {
    Optional<String> term() {
      return section.term();
    }
  }

  /**
   * A person who came with a roster.
   *
   * @param instructor whether they are one still: who has become more is not renamed by rosters
   */
  public record Teacher(String name, boolean instructor) {}
}
