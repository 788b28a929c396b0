/**
 * Calendars of terms, as they are kept, and the dates that sections have by them.
 *
 * <p>{@link org.zephyrmist.server.calendar.Calendars} keeps calendars and knows by which days a
 * section goes; {@link org.zephyrmist.server.calendar.Dating} makes of a version what it means for
 * a section; {@link org.zephyrmist.server.calendar.Ribbon} counts what is due each day. What dates
 * become is computed in {@code core.calendar}. Deliveries ask this package, it knows nothing of
 * them.
 */
package org.zephyrmist.server.calendar;
