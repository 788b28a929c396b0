package org.zephyrmist.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zephyrmist.stage.Shell;

/** What is alive in a server's heap, as its log of collections tells. */
final class Heap {
  private static final Pattern ALIVE =
      Pattern.compile("Pause Full \\(Diagnostic Command\\) \\d+M->(\\d+)M");
  private final Path log;
  private final long pid;

  /** Has a server write down its collections from now on. */
  Heap(Path folder, long pid) throws Exception {
    this.log = Files.createFile(folder.resolve("collections.log"));
    this.pid = pid;
    Shell.output("jcmd", String.valueOf(pid), "VM.log", "output=" + log, "what=gc");
  }

  /** The most that was alive at any look while the work was done, in MB. */
  long peakDuring(Stopwatch.Work work) throws Exception {
    long before = Files.size(log);
    AtomicBoolean over = new AtomicBoolean();
    Thread looking =
        new Thread(
            () -> {
              while (!over.get()) {
                collect();
                College.pause(1_000);
              }
            });
    looking.start();
    try {
      work.run();
    } finally {
      over.set(true);
      looking.join();
    }
    return peak(Files.readString(log).substring((int) before));
  }

  static long peak(String collections) {
    long most = 0;
    for (Matcher m = ALIVE.matcher(collections); m.find(); ) {
      most = Math.max(most, Long.parseLong(m.group(1)));
    }
    return most;
  }

  private void collect() {
    try {
      Shell.output("jcmd", String.valueOf(pid), "GC.run");
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }
}
