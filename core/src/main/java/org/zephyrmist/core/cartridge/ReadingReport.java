package org.zephyrmist.core.cartridge;

import java.util.List;
import java.util.SortedMap;
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
    int unplaced) {
  /** How many findings of one sort are named; one more says how many there are besides. */
  public static final int MOST_FINDINGS = 1_000;

  /** How many unused files are named. */
  public static final int MOST_UNUSED = 200;

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
