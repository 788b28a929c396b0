package org.zephyrmist.core.content;

import java.util.Locale;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** Titles that can stand in a list beside others without disturbing them. */
public final class Titles {
  /** Characters of a title; the rest is cut off. */
  public static final int MOST = 500;

  /**
   * Controls, embeddings, overrides and isolates of direction (Unicode UAX 9, section 2), and
   * characters without width that only hide something. Joiners and plain direction marks stay; some
   * scripts need them.
   */
  private static final Pattern UNSEEN =
      Pattern.compile(
          "[\\p{Cc}\\u200B\\u2060-\\u2064\\u202A-\\u202E\\u2066-\\u206F\\uFEFF\\uFFF9-\\uFFFB]");

  /**
   * Marks before a title that make it stand further to the right, with a gap or several of them.
   */
  private static final Pattern INDENT =
      Pattern.compile("^(?:[-–—_·•*>»→|~.…]+\\s+|[-–—_·•*>»→|~.…]{2,})+(?=[\\p{L}\\p{N}(“\"])");

  private static final Pattern GAPS = Pattern.compile("[\\s\\u00A0\\u2028\\u2029]+");
  private static final Pattern ONLY_UNSEEN = Pattern.compile("[\\p{Cf}\\p{Z}]*");

  /** The same titles stand in hundreds of shells. */
  private static final Remembered FOLDED = new Remembered(2_000_000);

  private Titles() {}

  /** The first that is not empty when cleaned, else "Untitled". */
  public static String firstOf(String... titles) {
    return Stream.of(titles)
        .map(Titles::clean)
        .filter(t -> !t.isEmpty())
        .findFirst()
        .orElse("Untitled");
  }

  /** What two titles that people take for the same have in common: letters and digits alone. */
  public static String folded(String title) {
    return title.isEmpty() ? title : FOLDED.get(title, Titles::foldedAnew);
  }

  private static String foldedAnew(String title) {
    return title.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", " ").strip();
  }

  /** Without what only indents it, such as dashes or dots before its first word. */
  public static String unindented(String title) {
    return INDENT.matcher(title).replaceFirst("");
  }

  /** The title as it is kept: one line, nothing unseen, at most {@link #MOST} characters. */
  public static String clean(String title) {
    String t = UNSEEN.matcher(GAPS.matcher(title).replaceAll(" ")).replaceAll("").strip();
    if (ONLY_UNSEEN.matcher(t).matches()) {
      return "";
    }
    if (t.length() <= MOST) {
      return t;
    }
    int end = Character.isHighSurrogate(t.charAt(MOST - 2)) ? MOST - 2 : MOST - 1;
    return t.substring(0, end).strip() + "…";
  }
}
