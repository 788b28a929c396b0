package org.zephyrmist.server.shell;

import java.time.Duration;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.zephyrmist.server.platform.PlatformException;

/**
 * Work on one item has a time, after which its section waits for a person and the others go on: no
 * text, however it is made, holds a worker for long.
 */
public final class ItemTime {
  /** Characters that are worked on at once, without another thread; they cannot take long. */
  private static final int SHORT = 20_000;

  private static final ExecutorService POOL =
      Executors.newCachedThreadPool(
          r -> {
            Thread t = new Thread(r, "text of an item");
            t.setDaemon(true);
            return t;
          });

  private ItemTime() {}

  /**
   * @param title of the item, for whoever has to look at it
   * @param chars of its text
   */
  public static <T> T within(Duration most, String title, int chars, Callable<T> work) {
    try {
      return chars <= SHORT ? work.call() : supervised(most, title, work);
    } catch (PlatformException e) {
      throw e;
    } catch (Exception e) {
      throw PlatformException.lasting(
          "“" + title + "” cannot be read: " + e.getMessage(),
          "Look at this item in the shell and in the master, then go on.");
    }
  }

  private static <T> T supervised(Duration most, String title, Callable<T> work) throws Exception {
    Future<T> result = POOL.submit(work);
    try {
      return result.get(most.toMillis(), TimeUnit.MILLISECONDS);
    } catch (TimeoutException e) {
      result.cancel(true);
      throw PlatformException.lasting(
          "The text of “" + title + "” takes longer than " + most.toSeconds() + " s to work on.",
          "Make it shorter or simpler, in the shell or in the master, then go on.");
    } catch (ExecutionException e) {
      throw e.getCause() instanceof Exception x ? x : e;
    }
  }
}
