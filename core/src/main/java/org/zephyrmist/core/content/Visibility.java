package org.zephyrmist.core.content;

/**
 * Who sees an item.
 *
 * @param shown false: hidden until someone shows it
 * @param instructorsOnly meant for instructors, never for students
 */
public record Visibility(boolean shown, boolean instructorsOnly) {
  public static final Visibility SHOWN = new Visibility(true, false);

  /** The same but for whether it is shown. */
  public Visibility withShown(boolean to) {
    return new Visibility(to, instructorsOnly);
  }
}
