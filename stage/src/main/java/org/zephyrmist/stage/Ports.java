package org.zephyrmist.stage;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.util.HashSet;
import java.util.Random;
import java.util.Set;

/**
 * Ports of the loopback that nobody listens on. They lie below those that the machine gives to
 * calls, so that a program that starts again finds its own free; drawn at random, so that several
 * runs on one machine do not meet.
 */
public final class Ports {
  private static final int FIRST = 11_000;
  private static final int LAST = 19_999;
  private static final Random RANDOM = new Random();
  private static final Set<Integer> GIVEN = new HashSet<>();

  private Ports() {}

  public static synchronized int free() {
    for (int tries = 0; tries < 1_000; tries++) {
      int port = FIRST + RANDOM.nextInt(LAST - FIRST);
      if (!GIVEN.contains(port) && isFree(port)) {
        GIVEN.add(port);
        return port;
      }
    }
    throw new IllegalStateException("No free port between " + FIRST + " and " + LAST);
  }

  private static boolean isFree(int port) {
    try (ServerSocket s = new ServerSocket(port, 1, InetAddress.getLoopbackAddress())) {
      return s.isBound();
    } catch (IOException taken) {
      return false;
    }
  }
}
