package org.zephyrmist.stage;

import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;

/** Folders of runs, within the checkout: what one run leaves is cleared by the next of its name. */
public final class Folders {
  private Folders() {}

  /** An empty folder. */
  public static Path fresh(String name) throws IOException {
    Path folder =
        Path.of(System.getProperty("root", "."), "stage/target/work", name).toAbsolutePath();
    if (Files.exists(folder)) {
      delete(folder);
    }
    return Files.createDirectories(folder);
  }

  private static void delete(Path folder) throws IOException {
    Files.walkFileTree(
        folder,
        new SimpleFileVisitor<>() {
          @Override
          public FileVisitResult visitFile(Path file, BasicFileAttributes a) throws IOException {
            Files.delete(file);
            return FileVisitResult.CONTINUE;
          }

          @Override
          public FileVisitResult postVisitDirectory(Path dir, IOException e) throws IOException {
            Files.delete(dir);
            return FileVisitResult.CONTINUE;
          }
        });
  }
}
