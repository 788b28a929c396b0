package org.zephyrmist.core.content;

import java.util.Arrays;
import java.util.Locale;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** Addresses and styles inside attributes. */
final class Styles {
  /** {@code url(…)} in CSS, with or without quotes (CSS Values 3, section 3.4). */
  private static final Pattern URL =
      Pattern.compile(
          "url\\(\\s*(\"([^\"]*)\"|'([^']*)'|([^)\\s]*))\\s*\\)", Pattern.CASE_INSENSITIVE);

  /** How text and tables look; nothing that moves, covers or loads. */
  private static final Set<String> KEPT =
      Set.of(
          ("color background-color text-align text-decoration text-indent font-weight font-style"
                  + " font-size font-family line-height list-style-type width max-width height"
                  + " margin margin-top margin-right margin-bottom margin-left padding padding-top"
                  + " padding-right padding-bottom padding-left border border-top border-right"
                  + " border-bottom border-left border-color border-style border-width"
                  + " border-collapse border-radius border-spacing float clear vertical-align"
                  + " white-space direction")
              .split(" "));

  /** No address, no function but of colours, no escape that could hide one. */
  private static final Pattern VALUE =
      Pattern.compile("(?:rgba?\\([\\d\\s,.%/]+\\)|[\\w\\s#%.,\"'!+-])*");

  private static final int MOST = 2_000;

  private Styles() {}

  /** A style attribute with its addresses replaced. */
  static String mapAddresses(String style, UnaryOperator<String> map) {
    Matcher m = URL.matcher(style);
    return m.replaceAll(
        r -> {
          String address =
              r.group(2) != null ? r.group(2) : r.group(3) != null ? r.group(3) : r.group(4);
          return Matcher.quoteReplacement(
              "url(\"" + map.apply(address).replace("\"", "%22") + "\")");
        });
  }

  /** Pictures to choose from, with their addresses replaced (HTML Standard, 4.8.4.2.1). */
  static String mapCandidates(String srcset, UnaryOperator<String> map) {
    return Arrays.stream(srcset.split(",\\s+|,$"))
        .map(String::strip)
        .filter(c -> !c.isEmpty())
        .map(
            c -> {
              String[] parts = c.split("\\s+", 2);
              String to = map.apply(parts[0]).replace(",", "%2C");
              return parts.length == 2 ? to + " " + parts[1] : to;
            })
        .collect(Collectors.joining(", "));
  }

  /** Of a style attribute, what only changes how a text looks. */
  static String safe(String style) {
    if (style.length() > MOST) {
      return "";
    }
    return Arrays.stream(style.split(";"))
        .map(String::strip)
        .filter(Styles::safeDeclaration)
        .map(d -> d.replaceFirst("\\s*:\\s*", ": "))
        .collect(Collectors.joining("; "));
  }

  private static boolean safeDeclaration(String declaration) {
    int colon = declaration.indexOf(':');
    return colon > 0
        && KEPT.contains(declaration.substring(0, colon).strip().toLowerCase(Locale.ROOT))
        && VALUE.matcher(declaration.substring(colon + 1)).matches();
  }
}
