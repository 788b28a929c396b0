package org.zephyrmist.core.tool;

/** What a tool is told of a person besides a number and a role. */
public record Privacy(boolean name, boolean mail) {
  public static final Privacy NOTHING = new Privacy(false, false);
}
