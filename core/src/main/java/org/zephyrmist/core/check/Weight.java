package org.zephyrmist.core.check;

/** How bad it is where a check does not hold, the worst first. */
public enum Weight {
  /** Students would meet it. */
  HARM,
  /** It is wrong. */
  WRONG,
  CAN_WAIT
}
