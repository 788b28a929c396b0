package org.zephyrmist.server.master;

import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import org.zephyrmist.core.content.Addresses;
import org.zephyrmist.core.content.Condition;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.DatePattern;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.ModuleDates;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.SetupSubject;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.core.content.When;
import org.zephyrmist.server.content.ItemView;
import org.zephyrmist.server.content.Previews;
import org.zephyrmist.server.web.Refusal;

/** What people write into the fields of an item, read or refused with what would be right. */
final class Entries {
  private static final int MOST = 10_000;

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
    if (address.isBlank() && kind.fields().contains(Kind.Field.TOOL)) {
      return "";
    }
    if (kind.fields().contains(Kind.Field.LAUNCH_ADDRESS)
        || kind.fields().contains(Kind.Field.TOOL)) {
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

  /** The times of an item with another one at a point: a real one, or by a pattern. */
  static Timing timing(Timing t, Point p, String text) {
    Optional<LocalDateTime> real = Timing.at(text.strip().replaceFirst("(?<=\\d) (?=\\d)", "T"));
    if (text.isBlank() || real.isPresent()) {
      return t.with(p, real);
    }
    return t.with(t.patterns().with(p, Optional.of(when(text, p))));
  }

  private static When when(String text, Point p) {
    return When.of(text, p)
        .orElseThrow(
            () ->
                Refusal.bad(
                    "“" + text + "” is no day and time.",
                    "Write for instance "
                        + DatePattern.Texts.FORMS
                        + ", each with a time if it has one: week 5 Mon 23:59."));
  }

  /** When what stands in a module is open; without a start, as each item says. */
  static Timing within(Timing t, ItemView.Within w) {
    Optional<ModuleDates> dates =
        w.start().isBlank()
            ? Optional.empty()
            : Optional.of(
                new ModuleDates(when(w.start(), Point.OPENS), w.everyWeeks(), w.oneAfterOther()));
    return t.with(t.patterns().within(dates));
  }

  /** The key of another item; none for an empty text. */
  static Optional<String> key(String key) {
    return key.isBlank() ? Optional.empty() : Optional.of(Previews.key(key).value());
  }

  /** A whole number above 0; none for an empty text. */
  static Optional<Integer> count(String text, String what) {
    if (text.isBlank()) {
      return Optional.empty();
    }
    try {
      int n = Integer.parseInt(text.strip());
      if (n > 0 && n <= MOST) {
        return Optional.of(n);
      }
    } catch (NumberFormatException e) {
      // said below
    }
    throw Refusal.bad(
        what + " are a whole number from 1 to " + MOST + ".", "Leave it empty for no limit.");
  }

  static Content.Criterion criterion(ItemView.RubricLine line) {
    if (line.text().isBlank()) {
      throw Refusal.bad("A line of the rubric says nothing.", "Write what is looked at.");
    }
    return new Content.Criterion(
        line.text().strip(),
        points(line.points()).orElse(BigDecimal.ZERO),
        line.outcome() == null ? Optional.empty() : key(line.outcome()));
  }

  /** Names that differ from each other. */
  static List<String> names(List<String> names) {
    List<String> all = names.stream().map(Titles::clean).filter(n -> !n.isEmpty()).toList();
    if (all.stream().distinct().count() < all.size()) {
      throw Refusal.bad("Two of the names are the same.", "Give each its own.");
    }
    return all;
  }

  /** Entries of a setup, each with a label and what its subject asks for. */
  static List<Content.Entry> entries(SetupSubject subject, List<Content.Entry> entries) {
    for (Content.Entry e : entries) {
      if (e.label() == null || Titles.clean(e.label()).isEmpty()) {
        throw Refusal.bad("An entry has no name.", "Write what people will read.");
      }
      String value = e.value() == null ? "" : e.value();
      boolean right =
          switch (subject) {
            case MENU, FRONT_PAGE ->
                Addresses.isPlain(value) || References.asItem(value).isPresent();
            case GRADE_SCALE -> Grading.number(value).isPresent();
            case BANNER, WEEK_PLACES -> true;
          };
      if (!right) {
        throw Refusal.bad(
            "“" + e.label() + "” has no value that fits the " + subject.words() + ".",
            subject == SetupSubject.GRADE_SCALE
                ? "Write the least percent that earns it."
                : "Choose an item, or write an address that begins with https://.");
      }
    }
    return entries.stream()
        .map(e -> new Content.Entry(Titles.clean(e.label()), e.value() == null ? "" : e.value()))
        .toList();
  }

  static Condition condition(ItemView.Waits w) {
    try {
      return new Condition(
          w.what(),
          Optional.ofNullable(w.item()).filter(k -> !k.isBlank()).map(k -> new ItemKey(k).value()),
          Optional.ofNullable(w.percent()).flatMap(Entries::points),
          Optional.ofNullable(w.from()).flatMap(Entries::day));
    } catch (IllegalArgumentException e) {
      throw Refusal.bad(
          "A condition is not complete.",
          "Name an item, or a day; of a score, the percent from 0 to 100.");
    }
  }

  /** The file, under its name here. */
  static FileRef kept(FileRef there, String name) {
    if (there == null) {
      throw Refusal.bad("“" + name + "” is not here.", "Send the file first.");
    }
    return new FileRef(there.sha256(), Titles.clean(name), there.mediaType(), there.size());
  }
}
