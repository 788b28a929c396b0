package org.zephyrmist.server.master;

import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.util.Optional;
import org.zephyrmist.core.content.Addresses;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.server.web.Refusal;

/** What people write into the fields of an item, read or refused with what would be right. */
final class Entries {
  private Entries() {}

  static String title(String title) {
    if (Titles.clean(title).isEmpty()) {
      throw Refusal.bad("The title shows nothing.", "Write one that people can read.");
    }
    return title;
  }

  static void check(Kind kind, Kind.Field field) {
    if (!kind.fields().contains(field)) {
      throw Refusal.bad(
          "This kind of item has no " + field.words() + " here.", "Change its title instead.");
    }
  }

  static Optional<BigDecimal> points(String points) {
    if (points.isBlank()) {
      return Optional.empty();
    }
    return Optional.of(
        Grading.number(points)
            .orElseThrow(
                () ->
                    Refusal.bad(
                        "Points are a number from 0 to 100,000.",
                        "Write for instance 10 or 2.5.")));
  }

  static String address(Kind kind, String address) {
    if (kind.fields().contains(Kind.Field.LAUNCH_ADDRESS)) {
      if (!Addresses.isWeb(address)) {
        throw Refusal.bad(
            "A tool is launched at an address of the web.", "Write one that begins with https://.");
      }
      return address;
    }
    check(kind, Kind.Field.ADDRESS);
    if (!Addresses.isPlain(address)) {
      throw Refusal.bad("A link needs an address.", "Write one that begins with https://.");
    }
    return address;
  }

  /** A local date and time. */
  static Optional<LocalDateTime> day(String text) {
    if (text.isBlank()) {
      return Optional.empty();
    }
    return Optional.of(
        Timing.at(text)
            .orElseThrow(
                () ->
                    Refusal.bad(
                        "This is no day and time.", "Write for instance 2026-10-05T18:00.")));
  }
}
