package org.zephyrmist.core.delivery;

/** Where a delivery is. */
public enum DeliveryState {
  PLANNING,
  PLANNED,
  RUNNING,
  STOPPED,
  DONE
}
