package org.zephyrmist.core.content;

/** What becomes of a date that falls on a day off. */
public enum OffRule {
  NEXT_TEACHING_DAY,
  TEACHING_DAY_BEFORE,
  /** The same weekday of the first earlier week in which it is no day off. */
  SAME_WEEKDAY_EARLIER,
  /** The same weekday of the first later week in which it is no day off. */
  SAME_WEEKDAY_LATER,
  /** It stays, and is told. */
  LEAVE
}
