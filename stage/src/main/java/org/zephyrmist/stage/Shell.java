package org.zephyrmist.stage;

import java.io.IOException;
import java.nio.charset.StandardCharsets;

/** Commands of the machine. */
public final class Shell {
  private Shell() {}

  public static String output(String... command) throws IOException, InterruptedException {
    Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
    String text = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    if (p.waitFor() != 0) {
      throw new IllegalStateException(String.join(" ", command) + ": " + text);
    }
    return text;
  }
}
