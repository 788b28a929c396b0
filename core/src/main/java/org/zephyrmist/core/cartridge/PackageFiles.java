package org.zephyrmist.core.cartridge;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;

/**
 * The files of a package. Every one is kept, once, on a thread of its own, while another reads the
 * outline; whoever refers to a file that is not yet kept need not wait unless it is large.
 */
final class PackageFiles {
  private static final long SMALL = 1 << 20;
  private final Archive archive;
  private final Intake intake;
  private final Map<String, Kept> kept = new ConcurrentHashMap<>();
  private Thread keeper;
  private Exception failure;
  private boolean ended;
  private volatile boolean stopped;

  /** What is remembered of a file; a package has very many. */
  private record Kept(Fingerprint fingerprint, long size) {
    static Kept of(FileRef f) {
      return new Kept(Fingerprint.parse(f.sha256()), f.size());
    }

    FileRef as(String path) {
      return new FileRef(fingerprint.hex(), Paths.fileName(path), MediaTypes.of(path), size);
    }
  }

  /** Work beside which the files are kept. */
  interface Work<T> {
    T done() throws CartridgeException, IOException;
  }

  PackageFiles(Archive archive, Intake intake) {
    this.archive = archive;
    this.intake = intake;
  }

  /**
   * Keeps all files and does the work meanwhile. Whichever fails first ends the other.
   *
   * @param told of every file that is kept
   */
  <T> T keepBeside(Consumer<String> told, Work<T> work) throws CartridgeException, IOException {
    keeper = new Thread(() -> keepAll(told), "files of a package");
    keeper.start();
    T done;
    try {
      done = work.done();
      join();
    } finally {
      stopped = true;
      keeper.interrupt();
      joinUninterrupted();
    }
    check();
    return done;
  }

  private void keepAll(Consumer<String> told) {
    Exception how = new IllegalStateException("The files were not kept to their end");
    try {
      for (String name : archive.names()) {
        if (stopped) {
          break;
        }
        try (InputStream in = archive.open(name)) {
          FileRef f = intake.file(name, Paths.fileName(name), MediaTypes.of(name), in);
          kept.put(name, Kept.of(f));
        }
        synchronized (this) {
          notifyAll();
        }
        told.accept(name);
      }
      how = null;
    } catch (IOException | RuntimeException e) {
      how = e;
    } finally {
      end(how); // or whoever waits for a file would wait for ever
    }
  }

  private synchronized void end(Exception e) {
    failure = e;
    ended = true;
    notifyAll();
  }

  /** Stops the outline where a file has failed. */
  synchronized void check() throws IOException {
    if (failure instanceof IOException e) {
      throw e;
    }
    if (failure instanceof RuntimeException e) {
      throw e;
    }
  }

  /**
   * A file of the archive under its fingerprint.
   *
   * @throws UncheckedIOException if it is damaged or breaks a limit
   */
  FileRef ref(String path) {
    Kept known = kept.get(path);
    if (known != null) {
      return known.as(path);
    }
    try {
      return archive.size(path) <= SMALL ? made(path) : awaited(path);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Keeps what was made of something in the package. */
  FileRef made(String name, String mediaType, byte[] content) {
    try {
      return intake.made(name, mediaType, content);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private FileRef made(String path) throws IOException {
    try (InputStream in = archive.again(path)) {
      byte[] all = in.readAllBytes();
      String sha = Fingerprint.of(Fingerprint.sha256().digest(all)).hex();
      return new FileRef(sha, Paths.fileName(path), MediaTypes.of(path), all.length);
    }
  }

  private synchronized FileRef awaited(String path) throws IOException {
    while (!kept.containsKey(path)) {
      check();
      if (ended) {
        throw new IllegalStateException("Not a file of the package: " + path);
      }
      try {
        wait();
      } catch (InterruptedException e) {
        throw interrupted(e);
      }
    }
    return kept.get(path).as(path);
  }

  private void join() {
    try {
      keeper.join();
    } catch (InterruptedException e) {
      throw interrupted(e);
    }
  }

  private static IllegalStateException interrupted(InterruptedException e) {
    Thread.currentThread().interrupt();
    return new IllegalStateException("The reading was stopped", e);
  }

  /** The archive is not closed while the other thread reads it. */
  private void joinUninterrupted() {
    boolean interrupted = Thread.interrupted();
    while (keeper.isAlive()) {
      try {
        keeper.join();
      } catch (InterruptedException e) {
        interrupted = true;
      }
    }
    if (interrupted) {
      Thread.currentThread().interrupt();
    }
  }

  /** How many files there are, each content counted once, and how many bytes. */
  Total total() {
    Set<Kept> once = new HashSet<>(kept.values());
    return new Total(once.size(), once.stream().mapToLong(Kept::size).sum());
  }

  record Total(int files, long bytes) {}
}
