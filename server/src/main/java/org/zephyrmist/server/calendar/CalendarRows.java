package org.zephyrmist.server.calendar;

import static org.zephyrmist.server.db.Tables.CALENDAR;
import static org.zephyrmist.server.db.Tables.DAY_OFF;

import java.time.DayOfWeek;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.calendar.Days;
import org.zephyrmist.core.calendar.TermCalendar;

/** A calendar as it is kept. */
@Component
class CalendarRows {
  private final DSLContext db;

  CalendarRows(DSLContext db) {
    this.db = db;
  }

  /**
   * Within the running transaction.
   *
   * @throws org.springframework.dao.DuplicateKeyException if another of its term is called so
   */
  void put(Calendars.Kept k) {
    TermCalendar c = k.calendar();
    db.insertInto(CALENDAR)
        .set(CALENDAR.ID, k.id())
        .set(CALENDAR.TERM_ID, k.term())
        .set(CALENDAR.NAME, k.name())
        .set(CALENDAR.FIRST_DAY, c.teaching().first())
        .set(CALENDAR.LAST_DAY, c.teaching().last())
        .set(CALENDAR.FINALS_FIRST, c.finals().map(Days::first).orElse(null))
        .set(CALENDAR.FINALS_LAST, c.finals().map(Days::last).orElse(null))
        .set(CALENDAR.ZONE, c.zone().getId())
        .set(CALENDAR.WEEKS, c.weeks())
        .set(
            CALENDAR.WEEKDAYS,
            c.weekdays().stream().map(DayOfWeek::getValue).sorted().toArray(Integer[]::new))
        .set(CALENDAR.WHOLE, k.whole())
        .set(CALENDAR.FIT, k.fit())
        .onConflict(CALENDAR.ID)
        .doUpdate()
        .setAllToExcluded()
        .execute();
    db.deleteFrom(DAY_OFF).where(DAY_OFF.CALENDAR_ID.eq(k.id())).execute();
    db.batch(
            c.off().stream()
                .map(
                    o ->
                        db.insertInto(DAY_OFF)
                            .values(k.id(), o.name(), o.days().first(), o.days().last()))
                .toList())
        .execute();
  }
}
