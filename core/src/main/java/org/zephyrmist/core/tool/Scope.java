package org.zephyrmist.core.tool;

/**
 * The sections that a connection serves.
 *
 * @param of code of the campus or course, or id of the section; empty for the college
 */
public record Scope(Level level, String of) {
  public static final Scope COLLEGE = new Scope(Level.COLLEGE, "");

  /** From the widest to the narrowest. */
  public enum Level {
    COLLEGE,
    CAMPUS,
    COURSE,
    SECTION
  }

  public Scope {
    if ((level == Level.COLLEGE) != of.isEmpty()) {
      throw new IllegalArgumentException("A scope names what it is about");
    }
  }

  public boolean covers(SectionPlace s) {
    return switch (level) {
      case COLLEGE -> true;
      case CAMPUS -> of.equals(s.campus());
      case COURSE -> of.equals(s.course());
      case SECTION -> of.equals(s.section());
    };
  }
}
