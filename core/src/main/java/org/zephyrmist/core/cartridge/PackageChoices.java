package org.zephyrmist.core.cartridge;

import org.zephyrmist.core.content.Frames;

/**
 * What of its items a package holds.
 *
 * @param parameters of tool links
 * @param grading points, attempts, time limits
 * @param instructorsOnly what is only for instructors
 * @param frames hosts whose frames may stand in texts
 */
public record PackageChoices(
    PackageFormat format,
    boolean parameters,
    boolean grading,
    boolean instructorsOnly,
    Frames frames) {
  /** Everything that a format can hold. */
  public static PackageChoices all(PackageFormat format) {
    return new PackageChoices(format, true, true, true, Frames.NONE);
  }
}
