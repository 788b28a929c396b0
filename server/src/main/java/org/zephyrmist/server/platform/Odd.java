package org.zephyrmist.server.platform;

import java.util.regex.Pattern;

/** Answers of a platform that no platform should give: they wait for a person, not for a retry. */
final class Odd {
  private static final Pattern ID = Pattern.compile("[\\x21-\\x7e]{1,200}");

  private static final int MOST_WORDS = 300;

  private Odd() {}

  /** An id as platforms give them: 1 to 200 visible characters of ASCII. */
  static String id(String id) {
    if (!ID.matcher(id).matches()) {
      throw answer("it names an id that is none");
    }
    return id;
  }

  /** The platform's own words, on one line and not too many. */
  static String words(String text) {
    String line = text.replaceAll("\\s+", " ").strip();
    return line.length() > MOST_WORDS ? line.substring(0, MOST_WORDS) : line;
  }

  static PlatformException answer(String what) {
    return PlatformException.lasting(
        "The platform's answer is odd: " + what + ".",
        "Tell the platform's people; nothing was changed by this.");
  }
}
