package org.zephyrmist.core.tool;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashSet;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A text with <code>{name}</code> where something is filled in.
 *
 * @param text as it was written
 */
public record Template(String text) {
  private static final Pattern NAME = Pattern.compile("\\{\\*?([a-z][a-z0-9-]{0,39})\\}");

  public Set<String> names() {
    Set<String> names = new LinkedHashSet<>();
    NAME.matcher(text).results().forEach(r -> names.add(r.group(1)));
    return names;
  }

  /** With all filled in as it is; none if something is not known. */
  public Optional<String> filled(Function<String, Optional<String>> known) {
    StringBuilder all = new StringBuilder();
    Matcher m = NAME.matcher(text);
    while (m.find()) {
      Optional<String> value = known.apply(m.group(1));
      if (value.isEmpty()) {
        return Optional.empty();
      }
      m.appendReplacement(all, Matcher.quoteReplacement(value.get()));
    }
    return Optional.of(m.appendTail(all).toString());
  }

  /** As it stands in an address (RFC 3986, section 2.1). */
  public static String inAddress(String value) {
    return URLEncoder.encode(value, StandardCharsets.UTF_8).replace("+", "%20");
  }
}
