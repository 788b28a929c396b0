package org.zephyrmist.core.roster;

/** The bundle as a whole cannot be read. */
public final class RosterException extends Exception {
  private final String remedy;

  public RosterException(String problem, String remedy) {
    super(problem);
    this.remedy = remedy;
  }

  public String remedy() {
    return remedy;
  }
}
