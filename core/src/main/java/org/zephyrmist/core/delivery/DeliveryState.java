package org.zephyrmist.core.delivery;

/** Where a delivery is. */
public enum DeliveryState {
  PLANNING,
  PLANNED,
  /** Confirmed, and begins at a set time. */
  SCHEDULED,
  RUNNING,
  STOPPED,
  DONE
}
