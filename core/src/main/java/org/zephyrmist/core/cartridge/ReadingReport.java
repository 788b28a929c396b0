package org.zephyrmist.core.cartridge;

import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import org.zephyrmist.core.content.Kind;

/**
 * What a reading found.
 *
 * @param counts items by kind
 * @param files files kept, once each
 * @param bytes of these files
 * @param toolHosts hosts of tool links, with the number of links
 * @param instructorsOnly titles of items that are not for students
 * @param notUnderstood what was kept but is not shown as an item of its own
 * @param deadReferences references that lead to nothing in the package
 * @param unused number of files that no page and no item uses
 * @param unusedFiles the first of their paths
 * @param unplaced number of items that stand nowhere in the outline
 * @param restricted items that ask for authorisation, with what they ask for
 * @param adjusted what was taken in otherwise than it stands in the package
 * @param frameHosts hosts of frames in texts, with the number of frames
 * @param questions by type, in quizzes and banks
 * @param others files of no open standard, by what they are, with their number
 * @param standards statements of a curriculum, with the number of items that serve each
 */
public record ReadingReport(
    CartridgeFacts facts,
    SortedMap<Kind, Integer> counts,
    int files,
    long bytes,
    SortedMap<String, Integer> toolHosts,
    List<String> instructorsOnly,
    List<Finding> notUnderstood,
    List<Finding> deadReferences,
    int unused,
    List<String> unusedFiles,
    int unplaced,
    List<Finding> restricted,
    List<Finding> adjusted,
    SortedMap<String, Integer> frameHosts,
    SortedMap<String, Integer> questions,
    SortedMap<String, Integer> others,
    SortedMap<String, Integer> standards) {
  /** How many findings of one sort are named; one more says how many there are besides. */
  public static final int MOST_FINDINGS = 1_000;

  /** How many unused files are named. */
  public static final int MOST_UNUSED = 200;

  /** Reports that were kept before some of it was read do not have it. */
  public ReadingReport {
    restricted = restricted == null ? List.of() : restricted;
    adjusted = adjusted == null ? List.of() : adjusted;
    frameHosts = orNone(frameHosts);
    questions = orNone(questions);
    others = orNone(others);
    standards = orNone(standards);
  }

  private static SortedMap<String, Integer> orNone(Map<String, Integer> map) {
    return map == null ? new TreeMap<>() : new TreeMap<>(map);
  }

  /**
   * One remark.
   *
   * @param where item or file
   */
  public record Finding(String where, String what) {}

  public int items() {
    return counts.values().stream().mapToInt(Integer::intValue).sum();
  }
}
