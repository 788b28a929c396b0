package org.zephyrmist.server.outgoing;

import java.io.IOException;

/** An answer has no end, or none that is worth waiting for. */
public final class TooLarge extends IOException {
  TooLarge(long most) {
    super("The answer is larger than " + (most >> 20) + " MB");
  }
}
