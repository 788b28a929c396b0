package org.zephyrmist.core.calendar;

import java.time.LocalDate;
import org.zephyrmist.core.content.Point;

/**
 * Why a date is not simply what its pattern says, or is not well where it is.
 *
 * @param said the day that the pattern says, before anything was done about it
 * @param off the name of the day off it is about; empty if it is about none
 */
public record Remark(Kind kind, Point point, LocalDate said, String off) {
  /** What is told. Those that {@code wantsALook} are for a person to look at. */
  public enum Kind {
    /** It fell on a day off and was moved. */
    MOVED_OFF_DAY(false),
    /** It stays on a day off. */
    ON_DAY_OFF(true),
    /** The term has not this day in its week, as when it begins on a Wednesday. */
    NO_SUCH_DAY(true),
    /** The pattern leads beyond the end; the last teaching day is taken. */
    AFTER_END(true),
    /** The section does not meet so often; its last meeting is taken. */
    TOO_FEW_MEETINGS(true),
    /** It is by meetings, and the section has none: it has no date. */
    NO_MEETINGS(true),
    /** It is relative to finals, and the calendar has none: the last teaching day is taken. */
    NO_FINALS(true),
    /** It is before the first or after the last day of the term, and stays there. */
    OUTSIDE(true),
    /** It was moved so that the item opens before it is due, and is due before it closes. */
    IN_ORDER(true),
    /** The item it is relative to has no such date: it has none either. */
    NOTHING_TO_FOLLOW(true),
    /** Dates follow each other in a circle: none of them has a date. */
    CIRCLE(true),
    /** Another item that was due on another day is due on this one now. */
    TWO_ON_ONE_DAY(true);

    private final boolean look;

    Kind(boolean look) {
      this.look = look;
    }

    /** Whether a person should look at it. */
    public boolean wantsALook() {
      return look;
    }
  }
}
