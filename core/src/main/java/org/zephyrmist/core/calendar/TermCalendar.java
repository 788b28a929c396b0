package org.zephyrmist.core.calendar;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * When a college teaches in a term, or in a part of one.
 *
 * @param teaching from the first to the last teaching day
 * @param off by their first day
 * @param finals days of final examinations, after the last teaching day
 * @param weekdays on which it teaches
 */
public record TermCalendar(
    Days teaching,
    List<DaysOff> off,
    Optional<Days> finals,
    ZoneId zone,
    WeekCount weeks,
    Set<DayOfWeek> weekdays) {
  /** Monday to Friday. */
  public static final Set<DayOfWeek> USUAL = EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY);

  /**
   * @throws CalendarException if nobody would ever teach, or the finals begin before teaching ends
   */
  public TermCalendar {
    off = off.stream().sorted(Comparator.comparing(o -> o.days().first())).toList();
    weekdays = Set.copyOf(weekdays);
    List<DaysOff> none = off;
    Set<DayOfWeek> on = weekdays;
    if (teaching
        .first()
        .datesUntil(teaching.last().plusDays(1))
        .noneMatch(d -> on.contains(d.getDayOfWeek()) && off(none, d).isEmpty())) {
      throw new CalendarException(
          off.isEmpty()
              ? "Nobody teaches on any day of this calendar."
              : "Days off cover the whole term: nobody would teach on any day.",
          "Look at the days of " + (off.isEmpty() ? "the week" : off.get(0).name()) + ".");
    }
    finals.ifPresent(
        f -> {
          if (!f.first().isAfter(teaching.last())) {
            throw new CalendarException(
                "The finals begin on " + f.first() + ", before teaching has ended.",
                "Let them begin after " + teaching.last() + ".");
          }
        });
  }

  /** Monday to Friday without a day off, weeks as the calendar has them. */
  public static TermCalendar plain(LocalDate first, LocalDate last, ZoneId zone) {
    Set<DayOfWeek> days = EnumSet.copyOf(USUAL);
    first.datesUntil(last.plusDays(1)).limit(7).forEach(d -> add(days, d, first, last));
    return new TermCalendar(
        new Days(first, last), List.of(), Optional.empty(), zone, WeekCount.CALENDAR, days);
  }

  /** A term of a weekend is taught on it. */
  private static void add(Set<DayOfWeek> days, LocalDate d, LocalDate first, LocalDate last) {
    if (last.isBefore(first.plusDays(2))) {
      days.add(d.getDayOfWeek());
    }
  }

  /**
   * The same for a part of it, without finals. Where nobody would teach, as in a part that is all
   * of a break, it is plain.
   */
  public TermCalendar within(Days part) {
    List<DaysOff> mine =
        off.stream()
            .filter(o -> !o.days().last().isBefore(part.first()))
            .filter(o -> !o.days().first().isAfter(part.last()))
            .toList();
    try {
      return new TermCalendar(part, mine, Optional.empty(), zone, weeks, weekdays);
    } catch (CalendarException e) {
      return plain(part.first(), part.last(), zone);
    }
  }

  /** The day off that a day is in. */
  public Optional<DaysOff> off(LocalDate day) {
    return off(off, day);
  }

  private static Optional<DaysOff> off(List<DaysOff> off, LocalDate day) {
    return off.stream().filter(o -> o.days().contains(day)).findFirst();
  }

  /** Whether somebody teaches on a day. */
  public boolean teaches(LocalDate day) {
    return teaching.contains(day) && weekdays.contains(day.getDayOfWeek()) && off(day).isEmpty();
  }

  /** The last day of all, with the finals. */
  public LocalDate end() {
    return finals.map(Days::last).orElse(teaching.last());
  }

  /** The same with more days off. */
  public TermCalendar with(DaysOff more) {
    List<DaysOff> all = new java.util.ArrayList<>(off);
    all.add(more);
    return new TermCalendar(teaching, all, finals, zone, weeks, weekdays);
  }
}
