package org.zephyrmist.core.calendar;

/** A calendar that cannot be: what is wrong with it, and what to do. */
public final class CalendarException extends RuntimeException {
  private static final long serialVersionUID = 1;
  private final String remedy;

  public CalendarException(String problem, String remedy) {
    super(problem);
    this.remedy = remedy;
  }

  public String remedy() {
    return remedy;
  }
}
