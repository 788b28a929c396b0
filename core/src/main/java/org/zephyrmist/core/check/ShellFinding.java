package org.zephyrmist.core.check;

import java.util.Optional;
import org.zephyrmist.core.edit.Subject;

/**
 * Where a check does not hold in a shell.
 *
 * @param about what it is about, the same in all shells where it does not hold alike
 * @param title of the item, or what else names it
 * @param evidence what is seen there, as one sentence or less; may be empty
 * @param item the platform's id; none if it is about no item that is here
 */
public record ShellFinding(
    Check check, Subject about, String title, String evidence, Optional<String> item) {
  /** What people call it. */
  public String words() {
    return check.title(title);
  }
}
