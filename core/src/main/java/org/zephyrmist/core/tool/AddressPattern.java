package org.zephyrmist.core.tool;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Addresses of the web that look alike: <code>{name}</code> stands for what is between two of
 * <code>
 * / ? # &amp;</code>, <code>{*name}</code> at the end for all the rest, also for nothing. Without a
 * scheme ({@code //host/...}) it stands for both of the web's. A part ends where the sign comes for
 * the first time that follows it in the pattern, so that an address is gone through once.
 */
public final class AddressPattern {
  private static final Pattern PART = Pattern.compile("\\{(\\*?)([a-z][a-z0-9-]{0,39})\\}");
  private static final int MOST = 500;
  private static final Pattern WHOLE =
      Pattern.compile("(?i:https?:)?//[^/?#{}]+(?:[/?#].*|\\{\\*.*)?");

  private final String text;
  private final Set<String> names;
  private final Pattern regex;

  /**
   * @param written as people write it
   * @throws IllegalArgumentException with what is wrong, to be shown
   */
  public AddressPattern(String written) {
    text = written.strip();
    if (!WHOLE.matcher(text).matches()) {
      throw new IllegalArgumentException(
          "It names no host. Begin with https:// or //, and the host in full.");
    }
    if (text.length() > MOST) {
      throw new IllegalArgumentException("It is longer than " + MOST + " signs.");
    }
    names = new LinkedHashSet<>();
    Matcher m = PART.matcher(text);
    int end = -1;
    while (m.find()) {
      if (m.start() == end) {
        throw new IllegalArgumentException(
            "Nothing stands between {" + m.group(2) + "} and the part before it.");
      }
      end = m.end();
      if (!names.add(m.group(2))) {
        throw new IllegalArgumentException("{" + m.group(2) + "} stands in it twice.");
      }
      if (!m.group(1).isEmpty() && m.end() < text.length()) {
        throw new IllegalArgumentException("Nothing can follow {*" + m.group(2) + "}.");
      }
    }
    if (PART.matcher(text).replaceAll("").matches(".*[{}].*")) {
      throw new IllegalArgumentException(
          "A part is written as {name}, in small letters, digits and hyphens.");
    }
    regex = regex();
  }

  /** As it was written. */
  public String text() {
    return text;
  }

  /** The host, in lower case. */
  public String host() {
    return text.replaceFirst("^(?i:https?:)?//", "")
        .replaceFirst("(?:[/?#:]|\\{\\*).*", "")
        .toLowerCase(Locale.ROOT);
  }

  /** Names of its parts, in their order. */
  public Set<String> names() {
    return Collections.unmodifiableSet(names);
  }

  /** The parts of an address that looks like this, by their names; none if it does not. */
  public Optional<Map<String, String>> parts(String address) {
    Matcher m = regex.matcher(address);
    if (!m.matches()) {
      return Optional.empty();
    }
    Map<String, String> parts = new LinkedHashMap<>();
    int group = 1;
    for (String name : names) {
      parts.put(name, m.group(group++));
    }
    return Optional.of(parts);
  }

  /** Scheme and host are the same in capitals (RFC 3986, section 6.2.2.1), the rest is not. */
  private Pattern regex() {
    StringBuilder all = new StringBuilder();
    int path = pathAt();
    Matcher m = PART.matcher(text);
    int at = 0;
    while (m.find()) {
      literal(all, at, m.start(), path);
      String rest = m.start() == path ? "((?:[/?#].*)?)" : "(.*)"; // a host ends where it ends
      all.append(m.group(1).isEmpty() ? "([^/?#&" + next(m.end()) + "]++)" : rest);
      at = m.end();
    }
    literal(all, at, text.length(), path);
    return Pattern.compile((text.startsWith("//") ? "(?i:https?:)" : "") + all);
  }

  /** The sign that ends a part, as it stands among those that a part has not. */
  private String next(int at) {
    return at < text.length() ? "\\x{" + Integer.toHexString(text.codePointAt(at)) + "}" : "";
  }

  private int pathAt() {
    Matcher host = Pattern.compile("^(?i:https?:)?//[^/?#{}]+").matcher(text);
    return host.find() ? host.end() : 0;
  }

  private void literal(StringBuilder all, int from, int to, int path) {
    int split = Math.max(from, Math.min(to, path));
    if (split > from) {
      all.append("(?i:").append(Pattern.quote(text.substring(from, split))).append(')');
    }
    if (to > split) {
      all.append(Pattern.quote(text.substring(split, to)));
    }
  }

  @Override
  public boolean equals(Object o) {
    return o instanceof AddressPattern p && p.text.equals(text);
  }

  @Override
  public int hashCode() {
    return text.hashCode();
  }

  @Override
  public String toString() {
    return text;
  }
}
