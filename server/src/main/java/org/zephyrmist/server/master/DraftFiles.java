package org.zephyrmist.server.master;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.cartridge.MediaTypes;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.web.Refusal;
import org.zephyrmist.server.web.Uploads;
import org.zephyrmist.server.web.Workspace;

/** Files that people put into a draft: received whole first, then kept. */
@Component
class DraftFiles {
  private static final int LONGEST_NAME = 255;
  private final org.zephyrmist.server.content.Files files;
  private final Workspace workspace;
  private final TransactionTemplate transaction;
  private final Settings settings;

  DraftFiles(
      org.zephyrmist.server.content.Files files,
      Workspace workspace,
      TransactionTemplate transaction,
      Settings settings) {
    this.files = files;
    this.workspace = workspace;
    this.transaction = transaction;
    this.settings = settings;
  }

  FileRef keep(String fileName, InputStream in) throws IOException {
    String name = Titles.clean(fileName).replaceAll("[/\\\\]", "_");
    if (name.isBlank() || name.length() > LONGEST_NAME) {
      throw Refusal.bad(
          "The file has no name, or one longer than " + LONGEST_NAME + " characters.",
          "Send its name as fileName.");
    }
    Path here = workspace.file("sent");
    try {
      Uploads.receive(
          in,
          here,
          settings.uploadMostBytes(),
          "file",
          "Send a smaller one, or raise the limit upload-most-bytes.");
      return transaction.execute(t -> kept(name, here));
    } finally {
      Files.deleteIfExists(here);
    }
  }

  private FileRef kept(String name, Path here) {
    try (InputStream in = Files.newInputStream(here)) {
      return files.keep(name, MediaTypes.of(name), in);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
