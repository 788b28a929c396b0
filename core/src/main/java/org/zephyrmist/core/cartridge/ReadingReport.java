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
    int unplaced) {
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
