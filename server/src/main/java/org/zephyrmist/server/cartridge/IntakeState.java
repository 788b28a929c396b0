package org.zephyrmist.server.cartridge;

/** Where the taking in of a package is. */
public enum IntakeState {
  READING,
  DONE,
  REFUSED
}
