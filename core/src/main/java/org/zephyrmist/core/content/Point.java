package org.zephyrmist.core.content;

import java.util.Locale;

/** The three times an item can have. */
public enum Point {
  OPENS,
  DUE,
  CLOSES;

  /** As patterns say it. */
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }
}
