package org.zephyrmist.core.delivery;

import java.util.Collections;
import java.util.EnumSet;
import java.util.Set;

/** Where a line is. */
public enum LineState {
  TO_PLAN,
  PLANNED,
  WAITING,
  RUNNING,
  TRYING_AGAIN,
  /** The platform has accepted what was written, and it is not there yet. */
  ACCEPTED,
  NEEDS_PERSON,
  /** Waits for something outside, see {@link WaitsFor}, and goes on by itself. */
  NOT_YET,
  STOPPED,
  DONE;

  /** Written now, or soon without anybody doing anything. */
  public static final Set<LineState> UNDER_WAY = of(WAITING, RUNNING, TRYING_AGAIN, ACCEPTED);

  /** The queue has something to do for it. */
  public static final Set<LineState> ON_THE_QUEUE =
      of(TO_PLAN, WAITING, RUNNING, TRYING_AGAIN, ACCEPTED);

  private static Set<LineState> of(LineState first, LineState... others) {
    return Collections.unmodifiableSet(EnumSet.of(first, others));
  }
}
