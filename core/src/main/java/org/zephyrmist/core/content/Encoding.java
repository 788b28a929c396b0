package org.zephyrmist.core.content;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * How the letters of a page are written that does not say so, or says it wrongly. One with a byte
 * order mark or a declaration that fits needs no guess (HTML Standard, 13.2.3.2).
 */
final class Encoding {
  private static final Pattern DECLARED =
      Pattern.compile("charset\\s*=\\s*[\"']?\\s*([a-z0-9_-]+)");
  private static final Charset WINDOWS = Charset.forName("windows-1252");

  /** Declarations are looked for in so many bytes. */
  private static final int HEAD = 1_024;

  private Encoding() {}

  /** What it is taken to be written in; none if it says so itself. */
  static Optional<Charset> guessed(byte[] page) {
    if (marked(page)) {
      return Optional.empty();
    }
    Optional<Charset> wide = wide(page);
    if (wide.isPresent()) {
      return wide;
    }
    String head =
        new String(page, 0, Math.min(page.length, HEAD), StandardCharsets.ISO_8859_1)
            .toLowerCase(Locale.ROOT);
    boolean other =
        DECLARED.matcher(head).results().map(m -> m.group(1)).anyMatch(c -> !c.equals("utf-8"));
    return other || !ratherWindows(page) ? Optional.empty() : Optional.of(WINDOWS);
  }

  private static boolean marked(byte[] p) {
    int first = at(p, 0);
    int second = at(p, 1);
    return first == 0xef && second == 0xbb && at(p, 2) == 0xbf
        || first == 0xfe && second == 0xff
        || first == 0xff && second == 0xfe;
  }

  private static int at(byte[] p, int i) {
    return i < p.length ? p[i] & 0xff : -1;
  }

  /** UTF-16 without a mark: of the letters of tags every other byte is nothing. */
  private static Optional<Charset> wide(byte[] p) {
    int even = 0;
    int odd = 0;
    int n = Math.min(p.length, HEAD);
    for (int i = 0; i < n; i++) {
      if (p[i] == 0) {
        even += i % 2 == 0 ? 1 : 0;
        odd += i % 2;
      }
    }
    boolean many = n > 3 && (even + odd) * 5 > n * 2;
    return !many
        ? Optional.empty()
        : Optional.of(even > odd ? StandardCharsets.UTF_16BE : StandardCharsets.UTF_16LE);
  }

  /** Whether more of its bytes make no UTF-8 than make letters beyond ASCII in it. */
  private static boolean ratherWindows(byte[] p) {
    int wrong = 0;
    int right = 0;
    for (int i = 0; i < p.length; ) {
      int b = p[i] & 0xff;
      int more =
          b < 0x80
              ? 0
              : b >= 0xc2 && b < 0xe0
                  ? 1
                  : b >= 0xe0 && b < 0xf0 ? 2 : b >= 0xf0 && b < 0xf5 ? 3 : -1;
      boolean whole = more >= 0;
      for (int k = 1; whole && k <= more; k++) {
        whole = (at(p, i + k) & 0xc0) == 0x80 && at(p, i + k) >= 0;
      }
      right += whole && more > 0 ? 1 : 0;
      wrong += whole ? 0 : 1;
      i += whole ? more + 1 : 1;
    }
    return wrong > right;
  }
}
