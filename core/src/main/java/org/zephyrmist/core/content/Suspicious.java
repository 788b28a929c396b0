package org.zephyrmist.core.content;

import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Sentences that look like a note from builder to builder and are not marked as one. */
public final class Suspicious {
  private static final int BEFORE = 12;
  private static final int AFTER = 40;

  private static final Pattern WORDS =
      Pattern.compile(
          String.join(
              "|",
              List.of(
                  "\\bto-?do\\b\\s*:",
                  "(?-i:\\bTO ?DO\\b)",
                  "\\bTBD\\b",
                  "\\bFIXME\\b",
                  "\\bXXX+\\b",
                  "\\blorem ipsum\\b",
                  "\\[\\s*(insert|add|your|name|date|link|tbd|todo|fill)\\b[^\\]]{0,80}\\]",
                  "<\\s*(insert|your)\\b[^>]{0,80}>",
                  "\\b(note|reminder) to (self|builder|designer|editor|developer)s?\\b",
                  "\\b(builder|designer|developer|editor)'?s? notes?\\b",
                  "\\bfor the (builder|designer|developer)s?\\b",
                  "\\b(delete|remove|replace) (this|before|when|once)\\b",
                  "\\b(do not|don't) (publish|release|show)\\b",
                  "\\bplaceholder\\b",
                  "\\bask (the )?(publisher|vendor|designer|IT)\\b",
                  "\\bcheck with\\b")),
          Pattern.CASE_INSENSITIVE);

  private Suspicious() {}

  /** The first such place in a title or a text, with a few words around it. */
  public static Optional<String> in(String title, String html) {
    return found(title).or(() -> found(Html.text(Marks.filled(html, name -> Optional.of("")))));
  }

  /** Whether such words stand in a text without marks. */
  static boolean stands(String text) {
    return WORDS.matcher(text).find();
  }

  private static Optional<String> found(String text) {
    Matcher m = WORDS.matcher(text);
    if (!m.find()) {
      return Optional.empty();
    }
    int from = text.lastIndexOf(' ', Math.max(0, m.start() - BEFORE)) + 1;
    int end = text.indexOf(' ', Math.min(text.length(), m.end() + AFTER));
    String some = text.substring(from, end < 0 ? text.length() : end);
    return Optional.of((from > 0 ? "… " : "") + some + (end < 0 ? "" : " …"));
  }
}
