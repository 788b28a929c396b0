package org.zephyrmist.core.calendar;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;

/** A calendar with its weeks and teaching days, and the meetings of a section, counted from 1. */
public final class CountedDays {
  private final TermCalendar calendar;
  private final Meetings meetings;
  private final List<LocalDate> teaching = new ArrayList<>();
  private final List<LocalDate> weeks = new ArrayList<>();
  private final List<LocalDate> meets = new ArrayList<>();

  /**
   * @throws CalendarException if a section that meets never meets
   */
  public CountedDays(TermCalendar calendar, Meetings meetings) {
    this.calendar = calendar;
    this.meetings = meetings;
    Days t = calendar.teaching();
    for (LocalDate d = t.first(); !d.isAfter(t.last()); d = d.plusDays(1)) {
      if (calendar.teaches(d)) {
        teaching.add(d);
      }
      if (meetings.begins(d.getDayOfWeek()).isPresent()
          && calendar.off(d).isEmpty()
          && !meetings.cancelled().contains(d)) {
        meets.add(d);
      }
    }
    for (LocalDate m = monday(t.first()); !m.isAfter(calendar.end()); m = m.plusDays(7)) {
      if (calendar.weeks() == WeekCount.CALENDAR || taught(m)) {
        weeks.add(m);
      }
    }
    if (!meetings.weekly().isEmpty() && meets.isEmpty()) {
      throw new CalendarException(
          "A section that meets on these days would never meet: all of them are off, cancelled or"
              + " outside the term.",
          "Look at its meeting days, and at the days off of its calendar.");
    }
  }

  public CountedDays(TermCalendar calendar) {
    this(calendar, Meetings.NONE);
  }

  private boolean taught(LocalDate monday) {
    return monday.datesUntil(monday.plusDays(7)).anyMatch(calendar::teaches);
  }

  static LocalDate monday(LocalDate day) {
    return day.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
  }

  public TermCalendar calendar() {
    return calendar;
  }

  public Meetings meetings() {
    return meetings;
  }

  /** Days on which somebody teaches, in order. */
  public List<LocalDate> teachingDays() {
    return Collections.unmodifiableList(teaching);
  }

  /** Days on which the section meets, in order. */
  public List<LocalDate> meetingDays() {
    return Collections.unmodifiableList(meets);
  }

  /** The Mondays of the weeks that count, in order. */
  public List<LocalDate> mondays() {
    return Collections.unmodifiableList(weeks);
  }

  /** The number of the week of a day; none of a day in a week that does not count. */
  public Optional<Integer> week(LocalDate day) {
    return place(weeks, monday(day));
  }

  /** Which teaching day a day is; none if nobody teaches on it. */
  public Optional<Integer> teachingDay(LocalDate day) {
    return place(teaching, day);
  }

  /** Which meeting is on a day; none if there is none. */
  public Optional<Integer> meeting(LocalDate day) {
    return place(meets, day);
  }

  private static Optional<Integer> place(List<LocalDate> in, LocalDate day) {
    int i = Collections.binarySearch(in, day);
    return i < 0 ? Optional.empty() : Optional.of(i + 1);
  }

  /** The first teaching day that is not before a day; none after the last. */
  public Optional<LocalDate> from(LocalDate day) {
    int i = Collections.binarySearch(teaching, day);
    int at = i < 0 ? -i - 1 : i;
    return at < teaching.size() ? Optional.of(teaching.get(at)) : Optional.empty();
  }

  /** The last teaching day that is not after a day; none before the first. */
  public Optional<LocalDate> until(LocalDate day) {
    int i = Collections.binarySearch(teaching, day);
    int at = i < 0 ? -i - 2 : i;
    return at >= 0 ? Optional.of(teaching.get(at)) : Optional.empty();
  }

  public LocalDate firstDay() {
    return teaching.get(0);
  }

  public LocalDate lastDay() {
    return teaching.get(teaching.size() - 1);
  }

  /** Whether a day is in the term, from its first week on to the end of its last, or in finals. */
  public boolean inTerm(LocalDate day) {
    return !day.isBefore(calendar.teaching().first()) && !day.isAfter(calendar.end());
  }
}
