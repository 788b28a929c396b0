package org.zephyrmist.core.content;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.format.TextStyle;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A day said relative to a term, so that it becomes a real one in each section's calendar. Each has
 * one text, which people write and read, and of which it can be made again.
 */
public sealed interface DatePattern {
  /** The largest number of a week, day or meeting, and of days before or after something. */
  int MOST = 400;

  /** The text of it, as {@link #of} reads it. */
  String text();

  /** A weekday of a week of the term, from 1: {@code week 5 Mon}. */
  record Week(int week, DayOfWeek day) implements DatePattern {
    public Week {
      counted(week);
    }

    @Override
    public String text() {
      return "week " + week + " " + name(day);
    }
  }

  /** A day on which the college teaches, from 1: {@code teaching day 12}. */
  record TeachingDay(int n) implements DatePattern {
    public TeachingDay {
      counted(n);
    }

    @Override
    public String text() {
      return "teaching day " + n;
    }
  }

  /** A day on which the section meets, from 1: {@code meeting 7}. */
  record Meeting(int n) implements DatePattern {
    public Meeting {
      counted(n);
    }

    @Override
    public String text() {
      return "meeting " + n;
    }
  }

  /**
   * Days before (negative) or after a point of another item: {@code 3 days after KEY due}.
   *
   * @param days calendar days, whatever stands between
   */
  record Beside(int days, ItemKey item, Point point) implements DatePattern {
    public Beside {
      inRange(days);
    }

    @Override
    public String text() {
      return away(days, item + " " + point.word());
    }
  }

  /** Days before (negative) or after the first teaching day: {@code 2 days before first day}. */
  record FirstDay(int days) implements DatePattern {
    public FirstDay {
      inRange(days);
    }

    @Override
    public String text() {
      return away(days, "first day");
    }
  }

  /** Days before (negative) or after the last teaching day: {@code last day}. */
  record LastDay(int days) implements DatePattern {
    public LastDay {
      inRange(days);
    }

    @Override
    public String text() {
      return away(days, "last day");
    }
  }

  /** A weekday of the days of finals, the first of its name: {@code finals Wed}. */
  record Finals(DayOfWeek day) implements DatePattern {
    @Override
    public String text() {
      return "finals " + name(day);
    }
  }

  /** A real day, whatever the term: {@code 2027-03-05}. */
  record Fixed(LocalDate day) implements DatePattern {
    public Fixed {
      if (day.getYear() < 1900 || day.getYear() > 2200) {
        throw new IllegalArgumentException("A day out of range: " + day);
      }
    }

    @Override
    public String text() {
      return day.toString();
    }
  }

  /** Whether nothing of a calendar is asked to know the day. */
  default boolean fixed() {
    return this instanceof Fixed;
  }

  /** The pattern that a text says; none if it says none. Upper and lower case are one. */
  static Optional<DatePattern> of(String text) {
    Matcher m = Texts.ALL.matcher(text.strip().replaceAll("\\s+", " "));
    if (!m.matches()) {
      return Optional.empty();
    }
    try {
      return read(m);
    } catch (IllegalArgumentException | DateTimeException outOfRange) {
      return Optional.empty();
    }
  }

  private static Optional<DatePattern> read(Matcher m) {
    if (m.group("week") != null) {
      int week = Integer.parseInt(m.group("week"));
      return day(m.group("day")).map(d -> new Week(week, d));
    }
    if (m.group("nth") != null) {
      int n = Integer.parseInt(m.group("nth"));
      boolean meeting = m.group("what").equalsIgnoreCase("meeting");
      return Optional.of(meeting ? new Meeting(n) : new TeachingDay(n));
    }
    if (m.group("finals") != null) {
      return day(m.group("finals")).map(Finals::new);
    }
    if (m.group("fixed") != null) {
      return Optional.of(new Fixed(LocalDate.parse(m.group("fixed"))));
    }
    int days = m.group("days") == null ? 0 : Integer.parseInt(m.group("days"));
    boolean before = "before".equalsIgnoreCase(m.group("side"));
    return beside(before ? -days : days, m);
  }

  private static Optional<DatePattern> beside(int days, Matcher m) {
    if (m.group("edge") != null) {
      boolean first = m.group("edge").equalsIgnoreCase("first");
      return Optional.of(first ? new FirstDay(days) : new LastDay(days));
    }
    Point point = Point.valueOf(m.group("point").toUpperCase(Locale.ROOT));
    return ItemKey.of(m.group("item")).map(k -> new Beside(days, k, point));
  }

  private static Optional<DayOfWeek> day(String name) {
    for (DayOfWeek d : DayOfWeek.values()) {
      String whole = d.getDisplayName(TextStyle.FULL, Locale.ENGLISH);
      if (name.length() >= 3
          && whole.regionMatches(true, 0, name, 0, Math.max(3, name.length()))
          && name.length() <= whole.length()) {
        return Optional.of(d);
      }
    }
    return Optional.empty();
  }

  private static String name(DayOfWeek day) {
    return day.getDisplayName(TextStyle.SHORT, Locale.ENGLISH);
  }

  private static String away(int days, String of) {
    if (days == 0) {
      return of;
    }
    int n = Math.abs(days);
    return n + (n == 1 ? " day " : " days ") + (days < 0 ? "before " : "after ") + of;
  }

  private static void counted(int n) {
    if (n < 1 || n > MOST) {
      throw new IllegalArgumentException("Counted from 1 to " + MOST + ": " + n);
    }
  }

  private static void inRange(int days) {
    if (Math.abs(days) > MOST) {
      throw new IllegalArgumentException("At most " + MOST + " days: " + days);
    }
  }

  /** How patterns are written. */
  final class Texts {
    private static final Pattern ALL =
        Pattern.compile(
            "week (?<week>\\d{1,3}) (?<day>[a-z]+)"
                + "|(?<what>teaching day|meeting) (?<nth>\\d{1,3})"
                + "|finals (?<finals>[a-z]+)"
                + "|(?<fixed>\\d{4}-\\d{2}-\\d{2})"
                + "|((?<days>\\d{1,3}) days? (?<side>before|after) )?"
                + "((?<edge>first|last) day|(?<item>[A-Za-z0-9._-]{1,80})"
                + " (?<point>opens|due|closes))",
            Pattern.CASE_INSENSITIVE);

    /** What people may write, for whoever wrote something else. */
    public static final String FORMS =
        "week 5 Mon, teaching day 12, meeting 7, 3 days after first day, last day, finals Wed, or"
            + " 2027-03-05";

    private Texts() {}
  }
}
