package org.zephyrmist.stage;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;

/** Commands of the machine. */
public final class Shell {
  private Shell() {}

  public static String output(String... command) throws IOException, InterruptedException {
    return output(Map.of(), command);
  }

  /** What a command prints, with these added to its environment. */
  public static String output(Map<String, String> environment, String... command)
      throws IOException, InterruptedException {
    ProcessBuilder b = new ProcessBuilder(command).redirectErrorStream(true);
    b.environment().putAll(environment);
    Process p = b.start();
    String text = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    if (p.waitFor() != 0) {
      throw new IllegalStateException(String.join(" ", command) + ": " + text);
    }
    return text;
  }
}
