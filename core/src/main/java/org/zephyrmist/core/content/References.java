package org.zephyrmist.core.content;

import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/**
 * References inside texts, independent of where the text stands: {@code zref:file/SHA256/NAME} and
 * {@code zref:item/KEY}, either with a fragment.
 */
public final class References {
  private static final String FILE = "zref:file/";
  private static final String ITEM = "zref:item/";

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

  public static Optional<ToFile> asFile(String address) {
    if (!address.startsWith(FILE)) {
      return Optional.empty();
    }
    String rest = address.substring(FILE.length());
    int slash = rest.indexOf('/');
    if (slash != 64) {
      return Optional.empty();
    }
    String name = withoutFragment(rest.substring(slash + 1));
    return Optional.of(new ToFile(rest.substring(0, 64), decode(name), fragment(rest)));
  }

  public static Optional<ToItem> asItem(String address) {
    return address.startsWith(ITEM)
        ? Optional.of(
            new ToItem(
                new ItemKey(withoutFragment(address.substring(ITEM.length()))), fragment(address)))
        : Optional.empty();
  }

  /** The same text with its references turned into addresses of some place. */
  public static String resolve(
      String html, Function<ToFile, String> files, Function<ToItem, String> items) {
    return html.contains("zref:")
        ? Html.mapAddresses(
            html, a -> asFile(a).map(files).or(() -> asItem(a).map(items)).orElse(a))
        : html;
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
    return URLDecoder.decode(name.replace("+", "%2B"), StandardCharsets.UTF_8);
  }
}
