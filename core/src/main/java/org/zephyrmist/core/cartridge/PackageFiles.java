package org.zephyrmist.core.cartridge;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.Collection;
import java.util.Map;
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
  private final Map<String, FileRef> refs = new ConcurrentHashMap<>();
  private Thread keeper;
  private Exception failure;
  private boolean ended;
  private volatile boolean stopped;

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
   * @param kept told of every file
   */
  <T> T keepBeside(Consumer<String> kept, Work<T> work) throws CartridgeException, IOException {
    keeper = new Thread(() -> keepAll(kept), "files of a package");
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

  private void keepAll(Consumer<String> kept) {
    try {
      for (String name : archive.names()) {
        if (stopped) {
          break;
        }
        try (InputStream in = archive.open(name)) {
          refs.put(name, intake.file(name, Paths.fileName(name), Paths.mediaType(name), in));
        }
        synchronized (this) {
          notifyAll();
        }
        kept.accept(name);
      }
      end(null);
    } catch (IOException | RuntimeException e) {
      end(e);
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
    FileRef known = refs.get(path);
    if (known != null) {
      return known;
    }
    try {
      return archive.size(path) <= SMALL ? made(path) : awaited(path);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private FileRef made(String path) throws IOException {
    try (InputStream in = archive.again(path)) {
      byte[] all = in.readAllBytes();
      String sha = Fingerprint.of(Fingerprint.sha256().digest(all)).hex();
      return new FileRef(sha, Paths.fileName(path), Paths.mediaType(path), all.length);
    }
  }

  private synchronized FileRef awaited(String path) throws IOException {
    while (!refs.containsKey(path)) {
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
    return refs.get(path);
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

  Collection<FileRef> all() {
    return refs.values();
  }
}
