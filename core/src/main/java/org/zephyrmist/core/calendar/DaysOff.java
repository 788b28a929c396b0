package org.zephyrmist.core.calendar;

/** Days on which nobody teaches: a holiday, a break, a closure. */
public record DaysOff(String name, Days days) {}
