package org.zephyrmist.core.cartridge;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;

/** Where everything stands in a package that is written. */
final class PackagePaths {
  private static final String FILES = "web_resources/";
  private static final int LONGEST = 120;

  /** Of a file that the receiver's file system, or ours, cannot have in a name. */
  private static final String ODD = "[\\p{Cntrl}/\\\\:*?\"<>|]+";

  private final Map<Named, String> files = new LinkedHashMap<>();
  private final Map<String, String> items = new LinkedHashMap<>();
  private final Set<String> taken = new HashSet<>();

  /** Gives an item its path. */
  void item(Item i, PackageFormat format) {
    String key = i.key().value();
    String path =
        switch (i.kind()) {
          case FILE -> i.content().madeOf().map(f -> file(f.sha256(), f.name())).orElseThrow();
          case PAGE -> FILES + key + ".html";
          case ASSIGNMENT -> format.assignments() ? "i/" + key + ".xml" : FILES + key + ".html";
          case QUESTION_BANK -> free("banks/", name(i.title()) + ".xml");
          default -> "i/" + key + ".xml";
        };
    items.put(key, path);
  }

  private String free(String folder, String name) {
    for (int n = 1; ; n++) {
      String path = folder + (n == 1 ? "" : n + "/") + name;
      if (taken.add(path.toLowerCase(Locale.ROOT))) {
        return path;
      }
    }
  }

  /** A file under a name; a file that has several stands under each. */
  private record Named(String sha256, String name) {}

  /** The path of a file, given when it is first asked for. */
  String file(String sha256, String name) {
    return files.computeIfAbsent(
        new Named(sha256, name), f -> free(FILES + sha256.substring(0, 16) + "/", name(name)));
  }

  /** The path of an item; none for modules and for what is not in the package. */
  Optional<String> of(ItemKey key) {
    return Optional.ofNullable(items.get(key.value()));
  }

  /** The fingerprint of every file, by its path. */
  Map<String, String> files() {
    Map<String, String> all = new LinkedHashMap<>();
    files.forEach((f, path) -> all.put(path, f.sha256()));
    return all;
  }

  /** The address of a file in a text; nowhere if the package has it not. */
  String address(String sha256, String name, String fragment) {
    String path = files.get(new Named(sha256, name));
    return path == null ? "#" : address(path) + fragment;
  }

  /** The address of a path in a text. */
  static String address(String path) {
    return "$IMS-CC-FILEBASE$/" + href(path);
  }

  /** A path as the address of a file in a manifest (RFC 3986). */
  static String href(String path) {
    return Arrays.stream(path.split("/"))
        .map(p -> URLEncoder.encode(p, StandardCharsets.UTF_8).replace("+", "%20"))
        .collect(Collectors.joining("/"));
  }

  /** A name as XML allows one (NCName): it begins with a letter. */
  static String identifier(String prefix, String value) {
    return prefix + value;
  }

  static String name(String name) {
    String n = name.replaceAll(ODD, "_").replaceAll("^[.\\s]+|[.\\s]+$", "");
    if (n.length() > LONGEST) {
      int dot = n.lastIndexOf('.');
      String ending = dot > n.length() - 12 && dot > 0 ? n.substring(dot) : "";
      n = n.substring(0, LONGEST - ending.length()) + ending;
    }
    return n.isBlank() ? "file" : n;
  }
}
