package org.zephyrmist.core.delivery;

/** What has to happen before a line goes on by itself. */
public enum WaitsFor {
  /** The section's shell is created. */
  SHELL,
  /** Somebody clears the shell, since the delivery goes only into an empty one. */
  EMPTY,
  /** The time comes at which the delivery begins. */
  TIME,
  /** What comes before it in the same order is done in its section. */
  BEFORE,
  /** Somebody brings the section's package in, since its platform has no interface. */
  PACKAGE
}
