package org.zephyrmist.bench;

import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicLong;

/** What is alive in another Java's heap, measured after collections. */
final class Heap {
  private Heap() {}

  /** The most that was alive at any look, in MB. */
  static long peakDuring(long pid, Timing.Work work) throws Exception {
    AtomicLong peak = new AtomicLong();
    AtomicBoolean over = new AtomicBoolean();
    Thread looking =
        new Thread(
            () -> {
              while (!over.get()) {
                peak.accumulateAndGet(alive(pid), Math::max);
                College.pause(300);
              }
            });
    looking.start();
    try {
      work.run();
    } finally {
      over.set(true);
      looking.join();
    }
    return peak.get();
  }

  private static long alive(long pid) {
    try {
      Shell.output("jcmd", String.valueOf(pid), "GC.run");
      String[] lines = Shell.output("jstat", "-gc", String.valueOf(pid)).strip().split("\n");
      String[] names = lines[0].strip().split("\\s+");
      String[] values = lines[1].strip().split("\\s+");
      double kilobytes = 0;
      for (int i = 0; i < names.length; i++) {
        if (names[i].matches("S0U|S1U|EU|OU")) {
          kilobytes += Double.parseDouble(values[i]);
        }
      }
      return (long) (kilobytes / 1024);
    } catch (java.io.IOException e) {
      throw new java.io.UncheckedIOException(e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }
}
