package org.zephyrmist.server.platform;

import static org.zephyrmist.server.db.Tables.PLATFORM_CAMPUS;
import static org.zephyrmist.server.db.Tables.SECTION;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.server.content.Files;

/**
 * A platform without an interface. What is written comes into a package for each shell; what a
 * shell holds is known by what was said or exported.
 */
final class PackagePlatform implements PlatformGateway {
  private final UUID platform;
  private final boolean meant;
  private final DSLContext db;
  private final KeptShells shells;
  private final KeptWrites writes;
  private final Files files;

  /**
   * @param meant shells are read as they will be once their packages are brought in
   */
  PackagePlatform(
      UUID platform,
      boolean meant,
      DSLContext db,
      KeptShells shells,
      KeptWrites writes,
      Files files) {
    this.writes = writes;
    this.platform = platform;
    this.meant = meant;
    this.db = db;
    this.shells = shells;
    this.files = files;
  }

  /** Every section of its campuses has a shell there, called as the roster calls the section. */
  @Override
  public List<Shell> shells() {
    return db.select(SECTION.SOURCED_ID, SECTION.TITLE, SECTION.STUDENTS)
        .from(SECTION)
        .join(PLATFORM_CAMPUS)
        .on(PLATFORM_CAMPUS.CAMPUS_ID.eq(SECTION.CAMPUS_ID))
        .where(PLATFORM_CAMPUS.PLATFORM_ID.eq(platform))
        .and(SECTION.IN_ROSTER)
        .orderBy(SECTION.SOURCED_ID)
        .fetch(r -> new Shell(r.value1(), r.value2(), r.value3() == null ? 0 : r.value3()));
  }

  private UUID section(String shell) {
    return db.select(SECTION.ID)
        .from(SECTION)
        .where(SECTION.PLATFORM_ID.eq(platform))
        .and(SECTION.SHELL.eq(shell))
        .fetchOptional(SECTION.ID)
        .orElseThrow(
            () ->
                PlatformException.lasting(
                    "This section has no shell there any more.", "Look for its shell again."));
  }

  @Override
  public Contents read(String shell) {
    return shells.read(section(shell), meant);
  }

  @Override
  public ShellAddresses addresses() {
    return HttpAddresses.SAME_EVERYWHERE;
  }

  @Override
  public boolean unchanged(String shell, String tag) {
    return !tag.isEmpty() && shells.tag(section(shell)).equals(tag);
  }

  @Override
  public Map<String, Written> apply(String shell, List<Write> steps) {
    return writes.apply(section(shell), steps);
  }

  @Override
  public boolean byPackage() {
    return true;
  }

  @Override
  public void arrived(String shell) {
    if (shells.waits(section(shell))) {
      throw PlatformException.toBringIn();
    }
  }

  @Override
  public void putAway(String shell) {
    shells.putAway(section(shell));
  }

  /** They go into the packages from here. */
  @Override
  public List<FileRef> missing(List<FileRef> wanted) {
    return List.of();
  }

  @Override
  public void upload(FileRef file, InputStream in) {
    throw new UnsupportedOperationException("Nothing is missing there");
  }

  @Override
  public void download(String sha256, Path to) {
    if (!files.has(sha256)) {
      throw PlatformException.lasting("The file is not here.", "Export the shell again.");
    }
    try (InputStream in = files.open(sha256)) {
      java.nio.file.Files.copy(in, to, java.nio.file.StandardCopyOption.REPLACE_EXISTING);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
