package org.zephyrmist.server.web;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;

/** Receives files within a limit, whatever the request says of its length. */
public final class Uploads {
  private Uploads() {}

  /**
   * Writes what comes into a file.
   *
   * @param what is received, for the refusal
   * @return bytes received
   */
  public static long receive(InputStream in, Path file, long most, String what, String remedy)
      throws IOException {
    long size = 0;
    try (OutputStream out = Files.newOutputStream(file)) {
      byte[] buffer = new byte[1 << 16];
      for (int n; (n = in.read(buffer)) > 0; ) {
        size += n;
        if (size > most) {
          throw Refusal.bad("The " + what + " is larger than " + most / (1 << 20) + " MB.", remedy);
        }
        out.write(buffer, 0, n);
      }
    }
    return size;
  }
}
