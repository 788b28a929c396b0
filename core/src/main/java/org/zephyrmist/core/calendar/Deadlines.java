package org.zephyrmist.core.calendar;

import biweekly.ICalendar;
import biweekly.component.VEvent;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Date;
import java.util.List;

/** What is due, as a calendar that people subscribe to (iCalendar, RFC 5545). */
public final class Deadlines {
  private static final String PRODUCT = "-//Zephyrmist//Dates//EN";

  private Deadlines() {}

  /**
   * One deadline.
   *
   * @param id the same whenever it is asked for, so that a moved one moves in calendars too
   * @param about what more is said of it; empty: nothing
   */
  public record Deadline(String id, String title, String about, LocalDateTime at, ZoneId zone) {}

  /**
   * @param name of the calendar
   * @param now when it was made
   */
  public static String calendar(String name, List<Deadline> all, Instant now) {
    ICalendar c = CalendarFile.empty(PRODUCT);
    c.setName(name);
    for (Deadline d : all) {
      VEvent e = new VEvent();
      e.setUid(d.id());
      e.setDateTimeStamp(Date.from(now));
      e.setSummary(d.title());
      if (!d.about().isEmpty()) {
        e.setDescription(d.about());
      }
      e.setDateStart(CalendarFile.moment(d.at(), d.zone()), true);
      e.setTransparency(true); // nobody is busy because something is due
      c.addEvent(e);
    }
    return CalendarFile.text(c);
  }
}
