package org.zephyrmist.core.content;

import java.util.Arrays;
import java.util.Optional;

/** Values of a text that the roster gives for each section. */
public enum RosterValue {
  SECTION_CODE("section-code", "section code"),
  SECTION_TITLE("section-title", "section title"),
  COURSE_CODE("course-code", "course code"),
  COURSE_TITLE("course-title", "course title"),
  TERM("term", "term"),
  CAMPUS("campus", "campus"),
  INSTRUCTOR("instructor", "instructor"),
  INSTRUCTOR_MAIL("instructor-mail", "instructor's mail address");

  private final String value;
  private final String words;

  RosterValue(String value, String words) {
    this.value = value;
    this.words = words;
  }

  /** Its name in a text, see {@link Marks}. */
  public String value() {
    return value;
  }

  /** What people call it. */
  public String words() {
    return words;
  }

  /** The value of this name; none if the roster gives none such. */
  public static Optional<RosterValue> named(String name) {
    return Arrays.stream(values()).filter(v -> v.value.equals(name)).findFirst();
  }
}
