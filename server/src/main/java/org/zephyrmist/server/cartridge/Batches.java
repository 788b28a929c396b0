package org.zephyrmist.server.cartridge;

import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Future;
import java.util.function.Consumer;

/**
 * One thread reads a package while another, which holds the transaction, writes what was read. A
 * batch or two may wait between them.
 */
final class Batches implements Consumer<Runnable> {
  private static final Runnable END = () -> {};
  private final BlockingQueue<Runnable> waiting = new ArrayBlockingQueue<>(2);

  /** Hands a batch to the writing thread; waits while two are there. */
  @Override
  public void accept(Runnable batch) {
    try {
      waiting.put(batch);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException("The reading was stopped", e);
    }
  }

  /** Runs the reading on a thread of the pool, and what it hands over on this one. */
  <T> T run(ExecutorService pool, Callable<T> reading) throws Exception {
    Future<T> read =
        pool.submit(
            () -> {
              try {
                return reading.call();
              } finally {
                accept(END);
              }
            });
    try {
      for (Runnable batch = waiting.take(); batch != END; batch = waiting.take()) {
        batch.run();
      }
      return read.get();
    } catch (ExecutionException e) {
      throw e.getCause() instanceof Exception x ? x : e;
    } finally {
      read.cancel(true);
    }
  }
}
