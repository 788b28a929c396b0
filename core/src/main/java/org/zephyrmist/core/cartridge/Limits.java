package org.zephyrmist.core.cartridge;

/**
 * How much a package may hold.
 *
 * @param entries files in the archive
 * @param expanded bytes of all files together
 * @param ratio how many times larger than in the archive a file over 1 MiB, or a package over 64
 *     MiB, may be
 * @param xml bytes of the manifest or of another XML file
 * @param page bytes of a page
 * @param depth levels of the outline and of any XML
 * @param name characters of a path
 */
public record Limits(
    int entries, long expanded, int ratio, long xml, long page, int depth, int name) {
  public static final Limits DEFAULT =
      new Limits(250_000, 20L << 30, 200, 50L << 20, 4L << 20, 200, 255);
}
