package org.zephyrmist.core.delivery;

/** Who is told by mail when a delivery has ended. */
public enum Tell {
  NOBODY,
  /** Whoever confirmed it. */
  SENDER,
  /** The same, and of each section those who teach it: what came, why, and what was kept. */
  INSTRUCTORS
}
