package org.zephyrmist.core.calendar;

/** How the patterns of a whole term are laid on a part of it that is shorter. */
public enum Fit {
  /** Week 5 is week 5. */
  AS_SAID,
  /** By the share of teaching days, to the day. */
  SHARE,
  /** By the share of teaching days, to the nearest same weekday. */
  SHARE_SAME_WEEKDAY
}
