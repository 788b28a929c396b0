package org.zephyrmist.core.tool;

import java.net.URI;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.TreeMap;

/** What an address sends along (RFC 3986, section 3.4). */
public final class Query {
  private Query() {}

  /** By name; nothing if it is no address. What is not encoded stays as it is. */
  public static Map<String, String> of(String address) {
    Map<String, String> all = new TreeMap<>();
    String query;
    try {
      query = URI.create(address).getRawQuery();
    } catch (IllegalArgumentException noAddress) {
      return all;
    }
    for (String p : query == null ? new String[0] : query.split("&")) {
      int eq = p.indexOf('=');
      if (eq > 0) {
        all.put(p.substring(0, eq), decoded(p.substring(eq + 1)));
      }
    }
    return all;
  }

  private static String decoded(String value) {
    try {
      return URLDecoder.decode(value, StandardCharsets.UTF_8);
    } catch (IllegalArgumentException notEncoded) {
      return value;
    }
  }
}
