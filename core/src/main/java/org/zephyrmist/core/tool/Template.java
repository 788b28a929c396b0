package org.zephyrmist.core.tool;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** A text with <code>{name}</code> where something is filled in. Taken apart once. */
public final class Template {
  private static final Pattern NAME = Pattern.compile("\\{\\*?([a-z][a-z0-9-]{0,39})\\}");
  private final String text;

  /** What stands before each name, and after the last. */
  private final List<String> between = new ArrayList<>();

  private final List<String> names = new ArrayList<>();

  /**
   * @param text as it was written
   */
  public Template(String text) {
    this.text = text;
    Matcher m = NAME.matcher(text);
    int end = 0;
    while (m.find()) {
      between.add(text.substring(end, m.start()));
      names.add(m.group(1));
      end = m.end();
    }
    between.add(text.substring(end));
  }

  /** As it was written. */
  public String text() {
    return text;
  }

  public Set<String> names() {
    return new LinkedHashSet<>(names);
  }

  /** With all filled in as it is; none if something is not known. */
  public Optional<String> filled(Function<String, Optional<String>> known) {
    StringBuilder all = new StringBuilder(between.get(0));
    for (int i = 0; i < names.size(); i++) {
      Optional<String> value = known.apply(names.get(i));
      if (value.isEmpty()) {
        return Optional.empty();
      }
      all.append(value.get()).append(between.get(i + 1));
    }
    return Optional.of(all.toString());
  }

  /** As it stands in an address (RFC 3986, section 2.1). */
  public static String inAddress(String value) {
    return URLEncoder.encode(value, StandardCharsets.UTF_8).replace("+", "%20");
  }

  @Override
  public boolean equals(Object o) {
    return o instanceof Template t && t.text.equals(text);
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
