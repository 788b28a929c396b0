package org.zephyrmist.core.content;

/**
 * When what stands in a module opens and closes, unless an item says it of itself.
 *
 * @param start when the first opens
 * @param everyWeeks by how many weeks each opens after the one before; 0: all together
 * @param oneAfterOther whether each closes when the next opens; else all stay open until the end
 */
public record ModuleDates(When start, int everyWeeks, boolean oneAfterOther) {
  public ModuleDates {
    if (everyWeeks < 0 || everyWeeks > 52) {
      throw new IllegalArgumentException("From 0 to 52 weeks: " + everyWeeks);
    }
  }
}
