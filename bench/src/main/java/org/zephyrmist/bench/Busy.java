package org.zephyrmist.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** How many of the machine's cores worked between two moments, as Linux counts it (proc(5)). */
final class Busy {
  private static final double TICKS_A_SECOND = 100;
  private static final int IDLE = 4;
  private static final int WAITING_FOR_DISKS = 5;
  private final long ticks = ticks();
  private final long start = System.nanoTime();

  Busy() throws IOException {}

  double cores() throws IOException {
    double seconds = (System.nanoTime() - start) / 1e9;
    return Math.round(10 * (ticks() - ticks) / TICKS_A_SECOND / seconds) / 10.0;
  }

  private static long ticks() throws IOException {
    String[] all = Files.readAllLines(Path.of("/proc/stat")).get(0).split(" +");
    long busy = 0;
    for (int i = 1; i < 9; i++) { // the rest is counted in these already
      busy += i == IDLE || i == WAITING_FOR_DISKS ? 0 : Long.parseLong(all[i]);
    }
    return busy;
  }
}
