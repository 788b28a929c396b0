package org.zephyrmist.core.content;

import java.util.regex.Pattern;

/**
 * Order by text: a rank can always be found between two others, so moving or adding an item never
 * touches its siblings. A rank is a fraction in base 36 without trailing zeros.
 */
public final class Rank {
  private static final String DIGITS = "0123456789abcdefghijklmnopqrstuvwxyz";
  private static final Pattern RANK = Pattern.compile("[0-9a-z]*[1-9a-z]");
  private static final int MOST = 1_000;
  private static final int BASE = DIGITS.length();

  private Rank() {}

  /** Whether a text is one: there is always room before and after it. */
  public static boolean is(String text) {
    return text.length() <= MOST && RANK.matcher(text).matches();
  }

  /** The n-th of evenly spaced ranks, n from 0, for writing a whole list at once (up to 36^5/8). */
  public static String nth(int n) {
    long value = (n + 1L) * 8;
    StringBuilder s = new StringBuilder();
    for (int i = 0; i < 5; i++) {
      s.insert(0, DIGITS.charAt((int) (value % BASE)));
      value /= BASE;
    }
    if (value > 0) {
      throw new IllegalArgumentException("Too many siblings: " + n);
    }
    return trim(s);
  }

  /**
   * A rank after {@code low} and before {@code high}; an empty text stands for the open end.
   *
   * @throws IllegalArgumentException if low is not before high
   */
  public static String between(String low, String high) {
    if (!high.isEmpty() && low.compareTo(high) >= 0) {
      throw new IllegalArgumentException(low + " is not before " + high);
    }
    StringBuilder s = new StringBuilder();
    boolean open = high.isEmpty();
    for (int i = 0; ; i++) {
      int l = i < low.length() ? DIGITS.indexOf(low.charAt(i)) : 0;
      int h = open ? BASE : i < high.length() ? DIGITS.indexOf(high.charAt(i)) : 0;
      if (h - l > 1) {
        return s.append(DIGITS.charAt((l + h) / 2)).toString();
      }
      s.append(DIGITS.charAt(l));
      if (h > l) {
        open = true;
      }
    }
  }

  private static String trim(StringBuilder s) {
    int end = s.length();
    while (end > 1 && s.charAt(end - 1) == '0') {
      end--;
    }
    return s.substring(0, end);
  }
}
