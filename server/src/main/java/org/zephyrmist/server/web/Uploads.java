package org.zephyrmist.server.web;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Semaphore;
import org.springframework.http.HttpStatus;

/** Receives files within a limit, whatever the request says of its length. */
public final class Uploads {
  /** Received at once by one server; each holds a thread. */
  private static final Semaphore PLACES = new Semaphore(32);

  /** Bytes a second, on average. */
  private static final int SLOWEST = 4_096;

  private Uploads() {}

  /**
   * Writes what comes into a file.
   *
   * @param what is received, for the refusal
   * @return bytes received
   */
  public static long receive(InputStream in, Path file, long most, String what, String remedy)
      throws IOException {
    if (!PLACES.tryAcquire()) {
      throw new Refusal(
          HttpStatus.SERVICE_UNAVAILABLE,
          "Many files are being received just now.",
          "Send the " + what + " again in a minute.");
    }
    try (OutputStream out = Files.newOutputStream(file)) {
      return copy(in, out, most, what, remedy);
    } finally {
      PLACES.release();
    }
  }

  private static long copy(InputStream in, OutputStream out, long most, String what, String remedy)
      throws IOException {
    long start = System.nanoTime();
    long size = 0;
    byte[] buffer = new byte[1 << 16];
    for (int n; (n = in.read(buffer)) > 0; ) {
      size += n;
      if (size > most) {
        throw Refusal.bad("The " + what + " is larger than " + most / (1 << 20) + " MB.", remedy);
      }
      long seconds = (System.nanoTime() - start) / 1_000_000_000L;
      if (seconds > 30 && size / seconds < SLOWEST) {
        throw new Refusal(
            HttpStatus.REQUEST_TIMEOUT,
            "The " + what + " comes too slowly to be waited for.",
            "Send it over a better connection.");
      }
      out.write(buffer, 0, n);
    }
    return size;
  }
}
