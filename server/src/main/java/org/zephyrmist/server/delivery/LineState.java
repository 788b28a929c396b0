package org.zephyrmist.server.delivery;

/** Where a line is. */
enum LineState {
  TO_PLAN,
  PLANNED,
  WAITING,
  RUNNING,
  TRYING_AGAIN,
  NEEDS_PERSON,
  STOPPED,
  DONE
}
