package org.zephyrmist.core.cartridge;

import java.io.IOException;
import java.io.InputStream;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.KeySpace;

/** Takes what a reading finds, as it comes: files from one thread, items from another. */
public interface Intake {
  /**
   * Keeps a file and says under which fingerprint. The stream is read to its end, not closed.
   *
   * @param path in the package
   * @param name the last part of the path
   */
  FileRef file(String path, String name, String mediaType, InputStream in) throws IOException;

  /** Keeps a file that the reading made of what the package holds. */
  FileRef made(String name, String mediaType, byte[] content) throws IOException;

  /** The keys of the package's items; asked once, before the first item comes. */
  KeySpace keySpace(CartridgeFacts facts);

  /** Takes an item; modules come before what they hold. */
  void item(Item item);

  /** Tells how far the reading is. */
  void progress(int done, int total, String what);
}
