package org.zephyrmist.core.calendar;

import biweekly.Biweekly;
import biweekly.ICalVersion;
import biweekly.ICalendar;
import biweekly.component.VEvent;
import biweekly.io.ParseWarning;
import biweekly.io.text.ICalReader;
import biweekly.property.DateOrDateTimeProperty;
import biweekly.util.Frequency;
import biweekly.util.ICalDate;
import biweekly.util.com.google.ical.compat.javautil.DateIterator;
import java.io.IOException;
import java.io.StringReader;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Date;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedSet;
import java.util.TimeZone;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Days off out of a calendar file (iCalendar, RFC 5545). Each event is one, its summary its name;
 * what repeats is followed within the term alone, so that a rule without end has one.
 */
public final class CalendarFile {
  /** Characters of a file that is read. */
  public static final int MOST = 5_000_000;

  private static final int MOST_EVENTS = 5_000;
  private static final int MOST_RULES = 500;
  private static final int MOST_DAYS = 5_000;
  private static final String MARK = "\uFEFF"; // with which some programs begin a text
  private static final Set<String> IANA = ZoneId.getAvailableZoneIds();
  private static final Pattern DEFINED = Pattern.compile("(?m)^TZID:(.+)$");
  private static final Pattern NAMED = Pattern.compile("TZID=\"?([A-Za-z0-9_+/-]+)\"?");
  private static final int LONGEST_NAME = 200;
  private static final Set<Frequency> TOO_OFTEN =
      EnumSet.of(Frequency.SECONDLY, Frequency.MINUTELY, Frequency.HOURLY);

  private CalendarFile() {}

  /**
   * What a file has for a term.
   *
   * @param outside events that are not in the term
   */
  public record Found(List<DaysOff> off, int outside) {}

  /**
   * @param within days about which it is asked
   * @param zone of the college, for events that name none
   * @throws CalendarException if it is none, says nothing, or names a zone that nobody knows
   */
  public static Found read(String text, Days within, ZoneId zone) {
    if (text.length() > MOST) {
      throw new CalendarException(
          "This calendar file has more than " + MOST / 1_000_000 + " million characters.",
          "Send one of the terms that are wanted.");
    }
    List<DaysOff> off = new ArrayList<>();
    int outside = 0;
    List<VEvent> events =
        events(zonesKnown(text.startsWith(MARK) ? text.substring(1) : text), zone);
    Map<String, Set<Date>> moved = moved(events);
    for (VEvent e : events) {
      if (e.getStatus() != null && e.getStatus().isCancelled()) {
        continue;
      }
      Set<Date> elsewhere =
          e.getRecurrenceId() == null ? moved.getOrDefault(uid(e), Set.of()) : Set.of();
      List<Days> when = days(e, within, zone, elsewhere);
      when.forEach(d -> off.add(new DaysOff(name(e), d)));
      outside += when.isEmpty() ? 1 : 0;
      if (off.size() > MOST_DAYS) {
        throw new CalendarException(
            "This calendar file has more than " + MOST_DAYS + " days off in the term.",
            "Export the academic calendar alone.");
      }
    }
    return new Found(List.copyOf(off), outside);
  }

  /**
   * Zones that are named without being defined are those of the IANA time zone database, as a name
   * that begins with a solidus is (RFC 5545, section 3.8.3.1).
   */
  private static String zonesKnown(String text) {
    Set<String> defined = new HashSet<>();
    DEFINED.matcher(text).results().forEach(m -> defined.add(m.group(1).strip()));
    return NAMED
        .matcher(text)
        .replaceAll(
            m -> {
              String zone = m.group(1);
              boolean known = !defined.contains(zone) && IANA.contains(zone);
              return Matcher.quoteReplacement(known ? "TZID=/" + zone : m.group());
            });
  }

  /** Single days of what repeats that an event of their own says otherwise, by what repeats. */
  private static Map<String, Set<Date>> moved(List<VEvent> events) {
    Map<String, Set<Date>> all = new HashMap<>();
    for (VEvent e : events) {
      if (e.getRecurrenceId() != null) {
        all.computeIfAbsent(uid(e), k -> new HashSet<>())
            .add(new Date(e.getRecurrenceId().getValue().getTime()));
      }
    }
    return all;
  }

  private static String uid(VEvent e) {
    return e.getUid() == null ? "" : e.getUid().getValue();
  }

  private static List<VEvent> events(String text, ZoneId zone) {
    List<VEvent> all = new ArrayList<>();
    boolean any = false;
    try (ICalReader reader = new ICalReader(new StringReader(text))) {
      reader.setDefaultTimezone(TimeZone.getTimeZone(zone));
      ICalendar c = reader.readNext();
      while (c != null) {
        any = true;
        zones(reader.getWarnings());
        all.addAll(c.getEvents());
        c = reader.readNext();
      }
    } catch (IOException e) {
      throw new IllegalStateException("It is in memory", e);
    }
    if (!any || all.isEmpty()) {
      throw new CalendarException(
          any
              ? "This calendar file has no events."
              : "This is no calendar file: it does not begin with BEGIN:VCALENDAR (RFC 5545).",
          "Export the academic calendar as iCalendar (.ics), and choose that file.");
    }
    if (all.size() > MOST_EVENTS) {
      throw new CalendarException(
          "This calendar file has more than " + MOST_EVENTS + " events.",
          "Export the academic calendar alone.");
    }
    if (all.stream().filter(e -> e.getRecurrenceRule() != null).count() > MOST_RULES) {
      throw new CalendarException(
          "This calendar file has more than " + MOST_RULES + " events that repeat.",
          "Export the academic calendar alone.");
    }
    return all;
  }

  /** Warning 37 and 38 of the reader: a zone that is named is not known. */
  private static void zones(List<ParseWarning> warnings) {
    for (ParseWarning w : warnings) {
      if (w.getCode() != null && (w.getCode() == 37 || w.getCode() == 38)) {
        throw new CalendarException(
            "Line " + w.getLineNumber() + " names a time zone that nobody knows: " + w.getMessage(),
            "Name one of the IANA time zone database, such as America/Chicago.");
      }
    }
  }

  private static String name(VEvent e) {
    String s = e.getSummary() == null ? "" : e.getSummary().getValue().strip();
    String name = s.isEmpty() ? "Day off" : s;
    return name.length() > LONGEST_NAME ? name.substring(0, LONGEST_NAME) : name;
  }

  /**
   * @param elsewhere beginnings of repeats that other events are about
   */
  private static List<Days> days(VEvent e, Days within, ZoneId zone, Set<Date> elsewhere) {
    Optional<ICalDate> start = value(e.getDateStart());
    if (start.isEmpty()) {
      throw new CalendarException(
          "The event “" + name(e) + "” does not say when it begins (DTSTART).",
          "Look at it in the calendar it came from.");
    }
    notTooOften(e);
    boolean timed = start.get().hasTime();
    ZoneId in = timed ? zone : ZoneId.systemDefault();
    LocalDate first = day(start.get(), in);
    LocalDate last = last(e, start.get(), first, in);
    long length = Duration.between(first.atStartOfDay(), last.atStartOfDay()).toDays();
    SortedSet<LocalDate> begins = new TreeSet<>();
    if (e.getRecurrenceRule() == null && !elsewhere.contains(new Date(start.get().getTime()))) {
      begins.add(first); // days that are listed come beside it (RFC 5545, section 3.8.5.2)
    }
    DateIterator each =
        e.getDateIterator(timed ? TimeZone.getTimeZone(zone) : TimeZone.getDefault());
    each.advanceTo(Date.from(within.first().minusDays(length + 1).atStartOfDay(in).toInstant()));
    boolean done = false;
    while (!done && each.hasNext()) {
      Date next = each.next();
      LocalDate at = day(next, in);
      if (!elsewhere.contains(next)) {
        begins.add(at);
      }
      done = at.plusDays(length).isAfter(within.last()); // what comes later says no more
    }
    List<Days> all = new ArrayList<>();
    for (LocalDate at : begins) {
      LocalDate end = at.plusDays(length);
      if (!end.isBefore(within.first()) && !at.isAfter(within.last())) {
        all.add(
            new Days(
                at.isBefore(within.first()) ? within.first() : at,
                end.isAfter(within.last()) ? within.last() : end));
      }
    }
    return all;
  }

  /** Days repeat by the day at the most; every second since 1990 nobody wants to count. */
  private static void notTooOften(VEvent e) {
    if (e.getRecurrenceRule() != null
        && TOO_OFTEN.contains(e.getRecurrenceRule().getValue().getFrequency())) {
      throw new CalendarException(
          "The event “" + name(e) + "” repeats more often than once a day.",
          "Take it out of the calendar that is exported.");
    }
  }

  /** The end of an event of whole days is the day after it (RFC 5545, section 3.6.1). */
  private static LocalDate last(VEvent e, ICalDate start, LocalDate first, ZoneId in) {
    Optional<ICalDate> end = value(e.getDateEnd());
    Instant to;
    if (end.isPresent()) {
      to = end.get().toInstant();
    } else if (e.getDuration() != null) {
      to = e.getDuration().getValue().add(start).toInstant();
    } else {
      return first;
    }
    LocalDate last = to.minusSeconds(1).atZone(in).toLocalDate();
    if (to.isBefore(start.toInstant())) {
      throw new CalendarException(
          "The event “" + name(e) + "” ends before it begins.",
          "Look at it in the calendar it came from.");
    }
    return last.isBefore(first) ? first : last;
  }

  private static Optional<ICalDate> value(DateOrDateTimeProperty p) {
    return Optional.ofNullable(p).map(x -> x.getValue());
  }

  private static LocalDate day(Date d, ZoneId in) {
    return Instant.ofEpochMilli(d.getTime()).atZone(in).toLocalDate();
  }

  /** The name and version with which files are written. */
  static ICalendar empty(String product) {
    ICalendar c = new ICalendar();
    c.setProductId(product);
    c.setVersion(ICalVersion.V2_0);
    return c;
  }

  /** The text of a calendar (RFC 5545, section 3.1: lines end with CR and LF). */
  static String text(ICalendar c) {
    return Biweekly.write(c).go();
  }

  /** A moment on the clocks of a zone. */
  static Date moment(java.time.LocalDateTime at, ZoneId zone) {
    return Date.from(at.atZone(zone).toInstant().atOffset(ZoneOffset.UTC).toInstant());
  }
}
