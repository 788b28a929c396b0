package org.zephyrmist.server.web;

import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;

/** Days that people ask for; a database knows fewer than can be written. */
public final class Days {
  private static final int EARLIEST = 1900;
  private static final int LATEST = 2200;

  private Days() {}

  /** Its first moment, in UTC. */
  public static OffsetDateTime begins(LocalDate day) {
    if (day.getYear() < EARLIEST || day.getYear() > LATEST) {
      throw Refusal.bad(
          "This day is out of range.", "Ask for one from " + EARLIEST + " to " + LATEST + ".");
    }
    return day.atStartOfDay().atOffset(ZoneOffset.UTC);
  }

  /** The moment after it, in UTC. */
  public static OffsetDateTime ends(LocalDate day) {
    return begins(day).plusDays(1);
  }
}
