package org.zephyrmist.server.platform;

import java.util.Optional;
import org.zephyrmist.core.content.References.ToFile;

/** How a platform addresses what stands in its shells. */
public interface ShellAddresses {
  /** The address of a file. */
  String file(ToFile file);

  /** The address of an item of a shell, with a fragment or an empty text. */
  String item(String shell, String id, String fragment);

  /** The file that an address means. */
  Optional<ToFile> asFile(String address);

  /** The item of this shell that an address means. */
  Optional<ToShellItem> asItem(String shell, String address);

  /** Whether an address means something within a shell, of whichever. */
  boolean isWithinAShell(String address);

  /** An item of a shell that a text refers to. */
  record ToShellItem(String id, String fragment) {}
}
