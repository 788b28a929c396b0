package org.zephyrmist.core.content;

/**
 * Who sees an item.
 *
 * @param shown false: hidden until someone shows it
 * @param instructorsOnly meant for instructors, never for students
 * @param asks what it asks for before it may be used, in words; empty: nothing
 */
public record Visibility(boolean shown, boolean instructorsOnly, String asks) {
  public static final Visibility SHOWN = new Visibility(true, false);

  public Visibility(boolean shown, boolean instructorsOnly) {
    this(shown, instructorsOnly, "");
  }

  /** The same but for whether it is shown. */
  public Visibility withShown(boolean to) {
    return new Visibility(to, instructorsOnly, asks);
  }
}
