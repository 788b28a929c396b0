package org.zephyrmist.bench;

/** Wall time of work that may fail. */
final class Stopwatch {
  private Stopwatch() {}

  interface Work {
    void run() throws Exception;
  }

  static double seconds(Work work) throws Exception {
    long start = System.nanoTime();
    work.run();
    return (System.nanoTime() - start) / 1e9;
  }
}
