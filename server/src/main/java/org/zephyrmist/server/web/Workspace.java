package org.zephyrmist.server.web;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import org.springframework.util.FileSystemUtils;

/**
 * Temporary files of one server, in a folder of their own that it holds a lock in. What a server
 * left that was killed is cleared by the next one that starts.
 */
@Component
public class Workspace {
  private static final Logger LOG = LoggerFactory.getLogger(Workspace.class);
  private static final String NAME = "zephyrmist-work-";
  private static final String ALIVE = "alive";

  /** So long a folder may be without its lock, while its server is just making it. */
  private static final Duration NEW = Duration.ofMinutes(1);

  private final Path folder;
  private final FileChannel alive;

  @Autowired
  Workspace() throws IOException {
    this(Path.of(System.getProperty("java.io.tmpdir")));
  }

  Workspace(Path place) throws IOException {
    folder = Files.createTempDirectory(place, NAME);
    alive =
        FileChannel.open(
            folder.resolve(ALIVE), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
    alive.lock();
    clear(place);
  }

  /** A new file, for its maker to delete. */
  public Path file(String kind) throws IOException {
    return Files.createTempFile(folder, kind + "-", "");
  }

  /** Where a file of this name stands, whether it is there or not; for its maker to delete. */
  public Path named(String name) {
    return folder.resolve(name);
  }

  /** A new folder; it goes when the server does. */
  Path folder(String kind) throws IOException {
    return Files.createDirectory(folder.resolve(kind));
  }

  private void clear(Path place) throws IOException {
    try (Stream<Path> all = Files.list(place)) {
      for (Path p : all.filter(this::maybeLeft).toList()) {
        try {
          if (abandoned(p)) {
            FileSystemUtils.deleteRecursively(p);
            LOG.info("Cleared {}, left by a server that was ended in the middle", p);
          }
        } catch (IOException e) {
          LOG.warn("{} stays behind: {}", p, e.toString());
        }
      }
    }
  }

  private boolean maybeLeft(Path p) {
    try {
      return p.getFileName().toString().startsWith(NAME)
          && !p.equals(folder)
          && Files.getOwner(p).equals(Files.getOwner(folder));
    } catch (IOException goneMeanwhile) {
      return false;
    }
  }

  private static boolean abandoned(Path p) throws IOException {
    try (FileChannel c = FileChannel.open(p.resolve(ALIVE), StandardOpenOption.WRITE)) {
      return c.tryLock() != null;
    } catch (OverlappingFileLockException ofThisProcess) {
      return false;
    } catch (NoSuchFileException notYetOrNeverThere) {
      return Files.getLastModifiedTime(p).toInstant().isBefore(Instant.now().minus(NEW));
    }
  }

  @PreDestroy
  void close() throws IOException {
    alive.close();
    FileSystemUtils.deleteRecursively(folder);
  }
}
