/**
 * Term calendars, and the real dates that patterns become in them.
 *
 * <p>{@link org.zephyrmist.core.calendar.TermCalendar} is what a college says of a term; {@link
 * org.zephyrmist.core.calendar.CountedDays} has its weeks, teaching days and meetings counted;
 * {@link org.zephyrmist.core.calendar.DatePlan} makes of a master's patterns the dates of a
 * section, with a remark wherever a date is not what its pattern says. {@link
 * org.zephyrmist.core.calendar.OldDates} makes patterns of real dates. Nothing here knows sections,
 * platforms or a database.
 */
package org.zephyrmist.core.calendar;
