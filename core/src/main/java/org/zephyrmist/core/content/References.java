package org.zephyrmist.core.content;

import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * References inside texts, independent of where the text stands: {@code zref:file/SHA256/NAME} and
 * {@code zref:item/KEY}, either with a fragment.
 */
public final class References {
  private static final String SCHEME = "zref:";
  private static final String FILE = SCHEME + "file/";
  private static final String ITEM = SCHEME + "item/";
  private static final int LONGEST_NAME = 255;
  private static final Pattern TO_FILE =
      Pattern.compile(FILE + "([0-9a-f]{64})/([^#]{1,2500})((?:#.*)?)", Pattern.DOTALL);
  private static final Pattern TO_ITEM =
      Pattern.compile(ITEM + "([A-Za-z0-9._-]{1,80})((?:#.*)?)", Pattern.DOTALL);

  /** The address of what leads nowhere. */
  public static final String NOWHERE = "#";

  private References() {}

  /** A file that a text refers to. */
  public record ToFile(String sha256, String name, String fragment) {}

  /** An item that a text refers to. */
  public record ToItem(ItemKey key, String fragment) {}

  public static String file(String sha256, String name, String fragment) {
    return FILE + sha256 + "/" + encode(name) + fragment;
  }

  public static String item(ItemKey key, String fragment) {
    return ITEM + key + fragment;
  }

  /** The file that an address means; none for anything that no reference of ours can be. */
  public static Optional<ToFile> asFile(String address) {
    Matcher m = TO_FILE.matcher(address);
    if (!m.matches()) {
      return Optional.empty();
    }
    String name = decode(m.group(2));
    return name.isBlank() || name.length() > LONGEST_NAME
        ? Optional.empty()
        : Optional.of(new ToFile(m.group(1), name, m.group(3)));
  }

  /** The item that an address means; none for anything that no reference of ours can be. */
  public static Optional<ToItem> asItem(String address) {
    Matcher m = TO_ITEM.matcher(address);
    return m.matches()
        ? Optional.of(new ToItem(new ItemKey(m.group(1)), m.group(2)))
        : Optional.empty();
  }

  /** Whether an address is written as ours are, right or wrong. */
  public static boolean isOurs(String address) {
    return address.strip().regionMatches(true, 0, SCHEME, 0, SCHEME.length());
  }

  /**
   * The same text with its references turned into addresses of some place; what is written like one
   * and is none leads nowhere.
   */
  public static String resolve(
      String html, Function<ToFile, String> files, Function<ToItem, String> items) {
    return html.contains(SCHEME)
        ? Html.mapAddresses(
            html,
            a ->
                asFile(a).map(files).or(() -> asItem(a).map(items)).orElse(isOurs(a) ? NOWHERE : a))
        : html;
  }

  /**
   * A text without the references that lead nowhere.
   *
   * @param dead how many there were
   */
  public record Live(String html, int dead) {}

  /** The same text; what it names and is not there leads nowhere from now on. */
  public static Live live(String html, Predicate<ToFile> files, Predicate<ToItem> items) {
    if (!html.contains(SCHEME)) {
      return new Live(html, 0);
    }
    int[] dead = {0};
    String live =
        Html.mapAddresses(
            html,
            a -> {
              boolean there =
                  !isOurs(a)
                      || asFile(a).filter(files).isPresent()
                      || asItem(a).filter(items).isPresent();
              dead[0] += there ? 0 : 1;
              return there ? a : NOWHERE;
            });
    return new Live(live, dead[0]);
  }

  /** Files that a text refers to. */
  public static List<ToFile> files(String html) {
    List<ToFile> all = new ArrayList<>();
    if (html.contains(FILE)) {
      Html.addresses(html).forEach(a -> asFile(a).ifPresent(all::add));
    }
    return all;
  }

  /** Items that a text refers to. */
  public static List<ToItem> items(String html) {
    List<ToItem> all = new ArrayList<>();
    if (html.contains(ITEM)) {
      Html.addresses(html).forEach(a -> asItem(a).ifPresent(all::add));
    }
    return all;
  }

  /** The fragment with its #, or an empty text. */
  public static String fragment(String address) {
    int hash = address.indexOf('#');
    return hash < 0 ? "" : address.substring(hash);
  }

  public static String withoutFragment(String address) {
    int hash = address.indexOf('#');
    return hash < 0 ? address : address.substring(0, hash);
  }

  private static String encode(String name) {
    return URLEncoder.encode(name, StandardCharsets.UTF_8).replace("+", "%20");
  }

  private static String decode(String name) {
    try {
      return URLDecoder.decode(name.replace("+", "%2B"), StandardCharsets.UTF_8);
    } catch (IllegalArgumentException e) {
      return name; // a plain percent sign
    }
  }
}
