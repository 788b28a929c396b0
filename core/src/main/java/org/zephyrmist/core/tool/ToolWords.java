package org.zephyrmist.core.tool;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What a tool says when an instructor comes back from it (LTI 1.1.1, section 3, "lti_msg"), so that
 * its answer can be known: words that it says, with <code>{course}</code> where it names the
 * course.
 *
 * @param text empty if it says nothing that is known
 */
public record ToolWords(String text) {
  public static final ToolWords NONE = new ToolWords("");
  private static final String COURSE = "{course}";
  private static final int MOST = 200;

  /**
   * @throws IllegalArgumentException with what is wrong, to be shown
   */
  public ToolWords {
    text = text.strip();
    if (text.length() > MOST) {
      throw new IllegalArgumentException("It is longer than " + MOST + " signs.");
    }
    if (text.indexOf(COURSE) != text.lastIndexOf(COURSE)) {
      throw new IllegalArgumentException("{course} stands in it twice.");
    }
    if (text.replace(COURSE, "").matches(".*[{}].*")) {
      throw new IllegalArgumentException("Only {course} can stand in it.");
    }
  }

  /** Whether a tool said so. */
  public boolean in(String said) {
    return !text.isEmpty() && pattern().matcher(said.strip()).matches();
  }

  /** The course that a tool named. */
  public Optional<String> course(String said) {
    Matcher m = pattern().matcher(said.strip());
    return text.contains(COURSE) && m.matches() ? Optional.of(m.group(1)) : Optional.empty();
  }

  private Pattern pattern() {
    int at = text.indexOf(COURSE);
    return at < 0
        ? Pattern.compile(Pattern.quote(text))
        : Pattern.compile(
            Pattern.quote(text.substring(0, at))
                + "(\\S{1,200})"
                + Pattern.quote(text.substring(at + COURSE.length())));
  }
}
