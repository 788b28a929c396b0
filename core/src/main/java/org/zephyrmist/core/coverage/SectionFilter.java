package org.zephyrmist.core.coverage;

import java.util.Locale;

/**
 * Names sections by what is said of them, so that the choice stays current; what is empty is no
 * matter.
 *
 * @param text some words of the code, the title, the course or those who teach
 * @param course its whole code
 * @param campus its whole name
 * @param instructor the whole name of one who teaches
 */
public record SectionFilter(String text, String course, String campus, String instructor) {
  public SectionFilter {
    text = text.strip();
    course = course.strip();
    campus = campus.strip();
    instructor = instructor.strip();
  }

  /** Whether it names every section there is. */
  public boolean everything() {
    return text.isEmpty() && course.isEmpty() && campus.isEmpty() && instructor.isEmpty();
  }

  public boolean covers(SectionWords s) {
    return (course.isEmpty() || course.equals(s.course()))
        && (campus.isEmpty() || campus.equals(s.campus()))
        && (instructor.isEmpty() || s.instructors().contains(instructor))
        && (text.isEmpty() || s.all().contains(text.toLowerCase(Locale.ROOT)));
  }
}
