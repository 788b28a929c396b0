package org.zephyrmist.core.check;

/** Of what checks are about, in the order in which people look at a shell. */
public enum CheckGroup {
  ALL_THERE("Is it all there"),
  FRONT_PAGE("Front page, menu"),
  TASKS("Tasks"),
  GRADE_BOOK("Grade book"),
  TOOLS("Tools"),
  DATES("Dates"),
  AS_STUDENT("As students see it"),
  SHELL_OPEN("Shell open");

  private final String words;

  CheckGroup(String words) {
    this.words = words;
  }

  /** What people call it. */
  public String words() {
    return words;
  }
}
