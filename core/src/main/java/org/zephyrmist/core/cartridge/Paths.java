package org.zephyrmist.core.cartridge;

import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** Paths inside a package. */
final class Paths {
  private static final String FILE_BASE = "$IMS-CC-FILEBASE$";

  private Paths() {}

  /** Separators as in the archive, percent signs as they are. */
  static String plain(String path) {
    String p = path.replace('\\', '/');
    return p.startsWith("./") ? p.substring(2) : p;
  }

  /** Percent signs resolved where they are well formed, separators as in the archive. */
  static String decode(String path) {
    String p = path.replace('\\', '/');
    if (p.indexOf('%') >= 0) {
      try {
        p = URLDecoder.decode(p.replace("+", "%2B"), StandardCharsets.UTF_8);
      } catch (IllegalArgumentException e) {
        return p; // a plain percent sign in a name
      }
    }
    return p.startsWith("./") ? p.substring(2) : p;
  }

  /**
   * The path in the package that an address on a page means; none for addresses that lead outside
   * or are only a fragment. Fragment and query are left off.
   */
  static Optional<String> resolve(String address, String page) {
    return relative(address, page).flatMap(Paths::normal);
  }

  /** Whether an address is relative and leads above the top of the package. */
  static boolean leavesThePackage(String address, String page) {
    Optional<String> path = relative(address, page);
    return path.isPresent()
        && normal(path.get()).isEmpty()
        && List.of(path.get().split("/")).contains("..");
  }

  /**
   * The path before its dots are resolved. What follows the base of files may be written from the
   * place of the page, too (Common Cartridge, "References to files").
   */
  private static Optional<String> relative(String address, String page) {
    String a = address.strip();
    int cut = firstOf(a, '?', '#');
    a = cut < 0 ? a : a.substring(0, cut);
    if (a.isEmpty() || a.startsWith("//") || a.matches("^[A-Za-z][A-Za-z0-9+.-]*:.*")) {
      return Optional.empty();
    }
    a = decode(a);
    String folder = page.contains("/") ? page.substring(0, page.lastIndexOf('/') + 1) : "";
    if (a.startsWith(FILE_BASE)) {
      a = a.substring(FILE_BASE.length()).replaceFirst("^/+", "");
      folder = a.startsWith("../") ? folder : "";
    } else if (a.startsWith("/")) {
      folder = "";
      a = a.substring(1);
    }
    return Optional.of(folder + a);
  }

  private static Optional<String> normal(String path) {
    Deque<String> parts = new ArrayDeque<>();
    for (String part : path.split("/")) {
      if (part.equals("..")) {
        if (parts.isEmpty()) {
          return Optional.empty();
        }
        parts.removeLast();
      } else if (!part.isEmpty() && !part.equals(".")) {
        parts.addLast(part);
      }
    }
    return parts.isEmpty() ? Optional.empty() : Optional.of(String.join("/", parts));
  }

  private static int firstOf(String s, char a, char b) {
    int i = s.indexOf(a);
    int j = s.indexOf(b);
    return i < 0 ? j : j < 0 ? i : Math.min(i, j);
  }

  static String fileName(String path) {
    return path.substring(path.lastIndexOf('/') + 1);
  }

  static boolean isPage(String path) {
    String p = path.toLowerCase(Locale.ROOT);
    return p.endsWith(".html") || p.endsWith(".htm") || p.endsWith(".xhtml");
  }
}
