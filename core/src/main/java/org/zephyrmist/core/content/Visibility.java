package org.zephyrmist.core.content;

import java.util.List;

/**
 * Who sees an item, and when.
 *
 * @param shown false: hidden until someone shows it
 * @param instructorsOnly meant for instructors, never for students
 * @param asks what it asks for before it may be used, in words; empty: nothing
 * @param conditions all of which must be met before it opens
 */
public record Visibility(
    boolean shown, boolean instructorsOnly, String asks, List<Condition> conditions) {
  public static final Visibility SHOWN = new Visibility(true, false);

  public Visibility {
    conditions = conditions.stream().distinct().toList();
  }

  public Visibility(boolean shown, boolean instructorsOnly, String asks) {
    this(shown, instructorsOnly, asks, List.of());
  }

  public Visibility(boolean shown, boolean instructorsOnly) {
    this(shown, instructorsOnly, "");
  }

  /** The same but for whether it is shown. */
  public Visibility withShown(boolean to) {
    return new Visibility(to, instructorsOnly, asks, conditions);
  }

  /** The same but for whom it is meant. */
  public Visibility withInstructorsOnly(boolean to) {
    return new Visibility(shown, to, asks, conditions);
  }

  /** The same but for what must be done before it opens. */
  public Visibility withConditions(List<Condition> to) {
    return new Visibility(shown, instructorsOnly, asks, to);
  }
}
