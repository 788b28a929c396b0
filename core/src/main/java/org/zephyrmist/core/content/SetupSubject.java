package org.zephyrmist.core.content;

/** What of a shell a setup is about. */
public enum SetupSubject {
  /** The page that opens first: a text, or an entry that names an item. */
  FRONT_PAGE("front page"),
  /** What stands in the menu, in its order: each entry's value is an address or an item. */
  MENU("menu"),
  /** A picture, and the words for those who do not see it. */
  BANNER("banner"),
  /** Each entry is a grade; its value is the least percent that earns it. */
  GRADE_SCALE("grade scale"),
  /** The places that the shell has for weeks, by name. */
  WEEK_PLACES("week places");

  private final String words;

  SetupSubject(String words) {
    this.words = words;
  }

  /** What people call it. */
  public String words() {
    return words;
  }
}
