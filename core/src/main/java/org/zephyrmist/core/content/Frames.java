package org.zephyrmist.core.content;

import java.net.URI;
import java.util.Locale;
import java.util.Set;

/**
 * Hosts whose frames may stand in a text.
 *
 * @param hosts in lower case; a host stands for itself alone, not for those below it
 */
public record Frames(Set<String> hosts) {
  public static final Frames NONE = new Frames(Set.of());

  public Frames {
    hosts = Set.copyOf(hosts);
  }

  /** Whether what an address shows may stand in a frame: encrypted, and of an approved host. */
  public boolean allow(String address) {
    return address.regionMatches(true, 0, "https:", 0, 6) && hosts.contains(host(address));
  }

  /** The host of an address in lower case; empty if it has none. */
  public static String host(String address) {
    try {
      String host = URI.create(address.strip()).getHost();
      return host == null ? "" : host.toLowerCase(Locale.ROOT);
    } catch (IllegalArgumentException e) {
      return "";
    }
  }
}
