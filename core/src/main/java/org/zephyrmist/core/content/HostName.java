package org.zephyrmist.core.content;

import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/** Names of hosts (RFC 1123, section 2.1) of at least two parts. */
public final class HostName {
  private static final Pattern NAME =
      Pattern.compile(
          "(?=.{1,253}$)([a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?\\.)+[a-z]([a-z0-9-]{0,61}[a-z0-9])?");

  private HostName() {}

  /** In small letters, without blanks around it; none if it is not the name of a host. */
  public static Optional<String> of(String given) {
    String host = given.strip().toLowerCase(Locale.ROOT);
    return NAME.matcher(host).matches() ? Optional.of(host) : Optional.empty();
  }
}
