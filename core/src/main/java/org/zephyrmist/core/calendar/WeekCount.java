package org.zephyrmist.core.calendar;

/** How the weeks of a term are counted. Weeks begin on Monday (ISO 8601). */
public enum WeekCount {
  /** Every week counts, from the one with the first day on. */
  CALENDAR,
  /** Weeks in which nobody teaches, such as a break, are passed over. */
  TEACHING
}
