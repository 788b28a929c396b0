package org.zephyrmist.core.content;

/**
 * A file, kept once by its content.
 *
 * @param sha256 64 hexadecimal digits
 * @param name file name to offer when it is downloaded
 * @param mediaType for instance {@code application/pdf}
 * @param size in bytes
 */
public record FileRef(String sha256, String name, String mediaType, long size) {
  public FileRef {
    Fingerprint.parse(sha256);
    if (name.isBlank() || size < 0) {
      throw new IllegalArgumentException("A file has a name and a size");
    }
  }
}
