package org.zephyrmist.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class WorkspaceTest {
  @TempDir Path place;

  private Path left(String name) throws IOException {
    Path folder = Files.createDirectory(place.resolve(name));
    Files.writeString(folder.resolve("package-1"), "half of an upload");
    return folder;
  }

  @Test
  void whatAKilledServerLeftIsCleared() throws IOException {
    Path killed = left("zephyrmist-work-1");
    Files.createFile(killed.resolve("alive"));
    Path tooSoon = left("zephyrmist-work-2");
    Path early = left("zephyrmist-work-3");
    Files.setLastModifiedTime(early, FileTime.from(Instant.now().minusSeconds(600)));
    Path others = left("something-else");
    Workspace next = new Workspace(place);
    assertThat(killed).doesNotExist();
    assertThat(early).doesNotExist();
    assertThat(tooSoon).exists();
    assertThat(others).exists();
    next.close();
  }

  @Test
  void whatALivingServerHoldsStaysAndItClearsUpAfterItself() throws IOException {
    Workspace living = new Workspace(place);
    Path upload = living.file("package");
    Workspace next = new Workspace(place);
    assertThat(upload).exists();
    living.close();
    next.close();
    assertThat(place).isEmptyDirectory();
  }
}
