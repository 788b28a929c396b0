package org.zephyrmist.server.platform;

import java.net.http.HttpResponse;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;

/** How long a platform asks to be left alone (RFC 9110, section 10.2.3). */
final class RetryAfter {
  private static final Duration LONGEST = Duration.ofMinutes(10);
  private static final Duration UNSAID = Duration.ofSeconds(5);

  private RetryAfter() {}

  static Duration of(HttpResponse<?> r) {
    return r.headers().firstValue("Retry-After").map(RetryAfter::parse).orElse(UNSAID);
  }

  static Duration parse(String value) {
    Duration d;
    try {
      d = Duration.ofSeconds(Long.parseLong(value.strip()));
    } catch (NumberFormatException notSeconds) {
      d = until(value.strip());
    }
    return d.isNegative() || d.isZero()
        ? Duration.ofSeconds(1)
        : d.compareTo(LONGEST) > 0 ? LONGEST : d;
  }

  private static Duration until(String date) {
    try {
      ZonedDateTime at = ZonedDateTime.parse(date, DateTimeFormatter.RFC_1123_DATE_TIME);
      return Duration.between(Instant.now(), at.toInstant());
    } catch (DateTimeException neither) {
      return UNSAID;
    }
  }
}
