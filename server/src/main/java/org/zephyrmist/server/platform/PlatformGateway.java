package org.zephyrmist.server.platform;

import java.io.InputStream;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.StudentCounts;
import org.zephyrmist.core.lti.Registration;
import org.zephyrmist.core.shell.OpenDays;
import org.zephyrmist.core.tool.Scored;
import org.zephyrmist.core.tool.Seen;
import org.zephyrmist.core.tool.TaskSides;

/** What is asked of a learning platform. Forms are canonical JSON in the platform's own terms. */
public interface PlatformGateway {
  /** A shell that the platform has. */
  record Shell(String id, String title, int students) {}

  /** An item in a shell, with the platform's ids and addresses. */
  record ShellItem(
      String id,
      Kind kind,
      Optional<String> parent,
      Map<Aspect, String> forms,
      boolean studentWork,
      String changedBy,
      String changedAt,
      String revision) {}

  /** One thing to write. */
  sealed interface Write {
    String key();

    record Add(String key, Kind kind, Map<Aspect, String> forms) implements Write {}

    /**
     * @param revision of the item as it was read; if it is another now, nothing is written
     */
    record Update(String key, String id, String revision, Map<Aspect, String> forms)
        implements Write {}

    record Remove(String key, String id, String revision) implements Write {}
  }

  /**
   * What became of a write.
   *
   * @param id the platform's id of the item
   * @param revision of the item after it
   * @param failed what the platform calls failed of it, although it is there; empty if nothing
   */
  record Written(String id, String revision, String failed) {}

  /**
   * A host of external tools in a shell.
   *
   * @param support whether the shell may use external tools at all
   * @param links that lead to it
   * @param opened when an instructor last opened one of them
   * @param said what the tool said then
   * @param course on the tool's side that is sent along; empty if none is
   * @param scored the last score that came back
   * @param tasks that are done in it
   */
  record ToolHost(
      String shell,
      String host,
      boolean support,
      int links,
      Seen.Data data,
      Optional<Instant> opened,
      String said,
      String course,
      Optional<Scored> scored,
      List<ToolTask> tasks) {}

  /** A task in a shell that is done in a tool. */
  record ToolTask(String item, String title, TaskSides sides) {}

  /** Credentials of a host, to be written into a shell. */
  record ToolData(
      String shell,
      String host,
      String key,
      String secret,
      Optional<Registration> registration,
      Optional<String> course) {
    @Override
    public String toString() {
      return "ToolData[" + shell + ", " + host + "]";
    }
  }

  /**
   * What these shells have for external tools; nothing where the platform does not tell.
   *
   * @param shells at most {@code MOST_AT_ONCE}
   */
  default List<ToolHost> tools(List<String> shells) {
    return List.of();
  }

  /**
   * Writes credentials; other settings of the hosts and their links stay. Twice is the same as
   * once.
   *
   * @param data at most {@code MOST_AT_ONCE}
   */
  default void connect(List<ToolData> data) {
    throw PlatformException.lasting(
        "This platform has no interface to write them by.",
        "Have key and secret entered in the shell by hand, then say that it is done.");
  }

  /** Most shells in one call about tools. */
  int MOST_AT_ONCE = 100;

  /** All shells, page by page. */
  List<Shell> shells();

  /**
   * What a shell holds.
   *
   * @param counts of what is the students' own, if the platform tells
   * @param tag what the platform calls this state; empty if it has no name for it
   * @param open when students may enter, if the platform tells
   */
  record Contents(
      List<ShellItem> items, String tag, Optional<StudentCounts> counts, Optional<OpenDays> open) {}

  Contents read(String shell);

  /** How it addresses what stands in its shells. */
  ShellAddresses addresses();

  /** Whether the shell is still in that state; false if the platform cannot tell. */
  boolean unchanged(String shell, String tag);

  /**
   * Writes, all or nothing; a write whose key was seen before is not done again.
   *
   * @return what became of each write, by key
   * @throws PlatformException of kind CONFLICT if an item is not as it was read; then nothing was
   *     done
   */
  Map<String, Written> apply(String shell, List<Write> writes);

  /** Whether what is written comes only once somebody has brought a package in. */
  default boolean byPackage() {
    return false;
  }

  /**
   * Makes sure that all that was written has come.
   *
   * @throws PlatformException of kind TO_BRING_IN while a package waits to be brought in
   */
  default void arrived(String shell) {}

  /** Puts away what was written and has not come. */
  default void putAway(String shell) {}

  /** Lets students enter on these days, and on no others. Twice is the same as once. */
  default void open(String shell, OpenDays days) {
    throw PlatformException.lasting(
        "This platform has no interface to open its shells by.",
        "Have the shell opened there by hand.");
  }

  /** Those of the files that the platform does not hold yet. */
  List<FileRef> missing(List<FileRef> files);

  void upload(FileRef file, InputStream in);

  /** Writes a file that the platform holds here; what comes is not yet known to be that file. */
  void download(String sha256, Path to);
}
