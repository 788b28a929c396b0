package org.zephyrmist.server.calendar;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.zephyrmist.core.calendar.CalendarException;
import org.zephyrmist.core.calendar.Days;
import org.zephyrmist.core.calendar.DaysOff;
import org.zephyrmist.core.calendar.Fit;
import org.zephyrmist.core.calendar.TermCalendar;
import org.zephyrmist.core.calendar.WeekCount;
import org.zephyrmist.server.web.Refusal;

/**
 * A calendar as people enter it.
 *
 * @param finalsFirst absent with {@code finalsLast}: it has no finals
 * @param zone a name of the IANA time zone database
 * @param weekdays on which the college teaches, Monday is 1
 * @param fit how the patterns of the whole term come into a part of it
 */
public record CalendarEntry(
    @NotNull @Size(min = 1, max = 100) String name,
    @NotNull LocalDate first,
    @NotNull LocalDate last,
    LocalDate finalsFirst,
    LocalDate finalsLast,
    @NotNull @Size(max = 60) String zone,
    @NotNull WeekCount weeks,
    @NotNull @Size(min = 1, max = 7) Set<@NotNull @Min(1) @Max(7) Integer> weekdays,
    @NotNull Fit fit,
    @NotNull @Size(max = 200) List<@NotNull @Valid OffDay> off) {
  private static final long LONGEST = 731;
  private static final int EARLIEST = 1900;
  private static final int LATEST = 2200;

  /** Days on which nobody teaches. */
  public record OffDay(
      @NotNull @Size(min = 1, max = 200) String name,
      @NotNull LocalDate first,
      @NotNull LocalDate last) {
    static OffDay of(DaysOff d) {
      return new OffDay(d.name(), d.days().first(), d.days().last());
    }

    DaysOff days() {
      return new DaysOff(name.strip(), new Days(first, last));
    }
  }

  static CalendarEntry of(Calendars.Kept k) {
    TermCalendar c = k.calendar();
    return new CalendarEntry(
        k.name(),
        c.teaching().first(),
        c.teaching().last(),
        c.finals().map(Days::first).orElse(null),
        c.finals().map(Days::last).orElse(null),
        c.zone().getId(),
        c.weeks(),
        c.weekdays().stream().map(DayOfWeek::getValue).collect(Collectors.toSet()),
        k.fit(),
        c.off().stream().map(OffDay::of).toList());
  }

  /** What it says; refused with what is wrong and what to do. */
  TermCalendar calendar() {
    if ((finalsFirst == null) != (finalsLast == null)) {
      throw Refusal.bad(
          "Of the finals one day is said and the other is not.", "Enter both days, or neither.");
    }
    Stream.concat(
            Stream.of(first, last, finalsFirst, finalsLast).filter(Objects::nonNull),
            off.stream().flatMap(o -> Stream.of(o.first(), o.last())))
        .forEach(CalendarEntry::inRange);
    if (off.stream().map(o -> o.name().strip() + " " + o.first()).distinct().count()
        < off.stream().distinct().count()) {
      throw Refusal.bad(
          "Two days off of one name begin on one day, and end on different ones.",
          "Take one of them out.");
    }
    if (ChronoUnit.DAYS.between(first, last) > LONGEST) {
      throw Refusal.bad(
          "From " + first + " to " + last + " are more than two years.",
          "Look whether a year is mistyped.");
    }
    try {
      return new TermCalendar(
          new Days(first, last),
          off.stream().map(OffDay::days).distinct().toList(),
          Optional.ofNullable(finalsFirst).map(f -> new Days(f, finalsLast)),
          ZoneId.of(zone),
          weeks,
          weekdays.stream().map(DayOfWeek::of).collect(Collectors.toSet()));
    } catch (CalendarException e) {
      throw refused(e);
    } catch (DateTimeException e) {
      throw Refusal.bad(
          "Nobody knows the time zone “" + zone + "”.",
          "Name one of the IANA time zone database, such as America/Chicago.");
    }
  }

  /** Days of other centuries are mistyped, and no database keeps all of them. */
  static void inRange(LocalDate day) {
    if (day.getYear() < EARLIEST || day.getYear() > LATEST) {
      throw Refusal.bad(
          "“" + day + "” is not a day of these times.", "Look whether its year is mistyped.");
    }
  }

  static Refusal refused(CalendarException e) {
    return Refusal.bad(e.getMessage(), e.remedy());
  }
}
