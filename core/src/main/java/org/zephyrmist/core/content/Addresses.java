package org.zephyrmist.core.content;

import java.net.URI;
import java.util.Locale;
import java.util.Set;

/** Addresses that a link may lead to. */
public final class Addresses {
  /** Characters of an address; browsers and platforms take no longer ones. */
  public static final int MOST = 2_000;

  private static final Set<String> PLAIN = Set.of("http", "https", "mailto", "tel");
  private static final Set<String> WEB = Set.of("http", "https");

  private Addresses() {}

  /** Whether a person may be sent there: an address of the web, of mail or of a telephone. */
  public static boolean isPlain(String address) {
    return hasScheme(address, PLAIN);
  }

  /** Whether it is an address of the web with a host (RFC 3986). */
  public static boolean isWeb(String address) {
    try {
      return hasScheme(address, WEB) && URI.create(address).getHost() != null;
    } catch (IllegalArgumentException e) {
      return false;
    }
  }

  private static boolean gaps(String address) {
    for (int i = 0; i < address.length(); i++) {
      char c = address.charAt(i);
      if (Character.isISOControl(c) || Character.isWhitespace(c)) {
        return true;
      }
    }
    return false;
  }

  private static boolean hasScheme(String address, Set<String> schemes) {
    int colon = address.indexOf(':');
    return colon > 0
        && address.length() <= MOST
        && !gaps(address)
        && schemes.contains(address.substring(0, colon).toLowerCase(Locale.ROOT));
  }
}
