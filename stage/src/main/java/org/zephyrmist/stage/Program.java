package org.zephyrmist.stage;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** One of our programs as a process of its own; it ends with whoever has started it. */
public final class Program implements AutoCloseable {
  private static final HttpClient CLIENT = HttpClient.newHttpClient();
  private final Process process;
  private final Path log;

  private Program(Process process, Path log) {
    this.process = process;
    this.log = log;
  }

  /**
   * @param app server or standins
   * @param log name of what it writes, within stage/target/logs
   * @param options of its Java
   */
  public static Program start(
      String app, String log, List<String> options, Map<String, String> settings)
      throws IOException {
    Path root = Path.of(System.getProperty("root", "."));
    List<String> command = new ArrayList<>();
    command.add(ProcessHandle.current().info().command().orElse("java"));
    command.add("-XX:+UseSerialGC"); // before the options: a later one of theirs counts
    command.addAll(options);
    if (Boolean.getBoolean("short.life")) { // sooner ready, slower at long work
      command.add("-XX:TieredStopAtLevel=1");
    }
    Path jar = Path.of(unpacked(root, app, settings));
    Path archive = jar.resolveSibling("app.jsa");
    if (Files.exists(archive)) {
      command.add("-XX:SharedArchiveFile=" + archive);
    }
    command.addAll(List.of("-jar", jar.toString()));
    ProcessBuilder b = new ProcessBuilder(command);
    b.environment().putAll(settings);
    Path file = Files.createDirectories(root.resolve("stage/target/logs")).resolve(log + ".log");
    b.redirectErrorStream(true).redirectOutput(ProcessBuilder.Redirect.appendTo(file.toFile()));
    Process p = b.start();
    Runtime.getRuntime().addShutdownHook(new Thread(p::destroyForcibly));
    return new Program(p, file);
  }

  /** Only the server is started often enough in a run to earn an archive of its classes. */
  private static String unpacked(Path root, String app, Map<String, String> settings)
      throws IOException {
    String archive = app.equals("server") ? "archive" : "";
    try {
      String script = root.resolve("scripts/app.sh").toString();
      return Shell.output(settings, script, app, archive).strip();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }

  /** Waits until an address of it answers that all is well. */
  public void await(String address) throws InterruptedException {
    for (int i = 0; i < 3_000; i++) {
      try {
        HttpRequest r = HttpRequest.newBuilder(URI.create(address)).build();
        if (CLIENT.send(r, HttpResponse.BodyHandlers.discarding()).statusCode() == 200) {
          return;
        }
      } catch (IOException notUpYet) {
        if (!process.isAlive()) {
          throw new IllegalStateException("It ended while it started; see " + log);
        }
      }
      Thread.sleep(50);
    }
    throw new IllegalStateException(address + " did not become ready; see " + log);
  }

  public boolean isAlive() {
    return process.isAlive();
  }

  public long pid() {
    return process.pid();
  }

  /** As a power cut would. */
  public void kill() {
    process.destroyForcibly().onExit().join();
  }

  /** Lets it end what it does. */
  @Override
  public void close() {
    process.destroy();
    process.onExit().join();
  }
}
