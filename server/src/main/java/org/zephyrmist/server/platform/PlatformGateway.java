package org.zephyrmist.server.platform;

import java.io.InputStream;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Kind;

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
      String changedAt) {}

  /** One thing to write. */
  sealed interface Write {
    String key();

    record Add(String key, Kind kind, Map<Aspect, String> forms) implements Write {}

    record Update(String key, String id, Map<Aspect, String> forms) implements Write {}

    record Remove(String key, String id) implements Write {}
  }

  /** All shells, page by page. */
  List<Shell> shells();

  List<ShellItem> read(String shell);

  /**
   * Writes, all or nothing; a write whose key was seen before is not done again.
   *
   * @return the platform's id of each item, by key
   */
  Map<String, String> apply(String shell, List<Write> writes);

  /** Those of the files that the platform does not hold yet. */
  List<FileRef> missing(List<FileRef> files);

  void upload(FileRef file, InputStream in);
}
