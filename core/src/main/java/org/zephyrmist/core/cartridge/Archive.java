package org.zephyrmist.core.cartridge;

import java.io.Closeable;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;

/** A ZIP archive (APPNOTE 6.3), read with distrust: names, sizes and ratios are checked. */
final class Archive implements Closeable {
  private static final long RATIO_FROM = 1 << 20;
  private final ZipFile zip;
  private final Limits limits;
  private final Map<String, ZipArchiveEntry> entries = new LinkedHashMap<>();
  private final Map<String, String> foldedNames = new HashMap<>();
  private long expanded;

  private Archive(ZipFile zip, Limits limits) {
    this.zip = zip;
    this.limits = limits;
  }

  static Archive open(Path file, Limits limits) throws CartridgeException {
    ZipFile zip;
    try {
      zip = ZipFile.builder().setPath(file).get();
    } catch (IOException e) {
      throw new CartridgeException(
          "",
          "This is not a ZIP archive, or it was cut off.",
          "Download it again, and choose the .imscc or .zip file itself.");
    }
    Archive archive = new Archive(zip, limits);
    try {
      archive.index();
    } catch (CartridgeException e) {
      archive.close();
      throw e;
    }
    return archive;
  }

  private void index() throws CartridgeException {
    for (ZipArchiveEntry e : Collections.list(zip.getEntries())) {
      String name = safeName(e);
      if (e.isDirectory()) {
        continue;
      }
      if (e.getGeneralPurposeBit().usesEncryption() || !zip.canReadEntryData(e)) {
        throw new CartridgeException(
            name, "The file is encrypted or packed in an unusual way.", "Pack it as a plain ZIP.");
      }
      if (entries.put(name, e) != null) {
        throw new CartridgeException(
            name, "The archive holds this file twice.", "Ask for a clean export.");
      }
      foldedNames.putIfAbsent(name.toLowerCase(Locale.ROOT), name);
      if (entries.size() > limits.entries()) {
        throw new CartridgeException(
            "",
            "The archive holds more than " + limits.entries() + " files.",
            "Split the package, or raise the limit.");
      }
    }
  }

  private String safeName(ZipArchiveEntry e) throws CartridgeException {
    String name = e.getName().replace('\\', '/');
    boolean escapes =
        name.startsWith("/")
            || name.matches("^[A-Za-z]:.*")
            || name.indexOf('\0') >= 0
            || List.of(name.split("/", -1)).contains("..");
    if (escapes || e.isUnixSymlink()) {
      throw new CartridgeException(
          e.getName(),
          "The path leads out of the archive.",
          "Do not use this package; ask its publisher for a clean one.");
    }
    if (name.length() > limits.name()) {
      throw new CartridgeException(
          name.substring(0, 60) + "…",
          "The path is longer than " + limits.name() + " characters.",
          "Shorten the name and pack again.");
    }
    return name.startsWith("./") ? name.substring(2) : name;
  }

  Set<String> names() {
    return entries.keySet();
  }

  /** The exact name, or the only one that differs in letter case. */
  Optional<String> find(String name) {
    return entries.containsKey(name)
        ? Optional.of(name)
        : Optional.ofNullable(foldedNames.get(name.toLowerCase(Locale.ROOT)));
  }

  /** A stream that stops at the limits. */
  InputStream open(String name) throws IOException {
    ZipArchiveEntry e = entries.get(name);
    return new Bounded(zip.getInputStream(e), name, e.getCompressedSize());
  }

  /** A whole file of at most so many bytes. */
  byte[] bytes(String name, long most) throws IOException, CartridgeException {
    try (InputStream in = open(name)) {
      byte[] all = in.readNBytes((int) most + 1);
      if (all.length > most) {
        throw new CartridgeException(
            name,
            "The file is larger than " + most / (1 << 20) + " MB.",
            "Split it, or raise the limit.");
      }
      return all;
    }
  }

  @Override
  public void close() {
    try {
      zip.close();
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }

  /** Thrown through streams; {@link CartridgeReader} turns it into a CartridgeException. */
  static final class TooLarge extends IOException {
    final String name;

    TooLarge(String name, String problem) {
      super(problem);
      this.name = name;
    }
  }

  private final class Bounded extends FilterInputStream {
    private final String name;
    private final long packed;
    private long read;

    Bounded(InputStream in, String name, long packed) {
      super(in);
      this.name = name;
      this.packed = Math.max(1, packed);
    }

    @Override
    public int read() throws IOException {
      int b = super.read();
      count(b < 0 ? 0 : 1);
      return b;
    }

    @Override
    public int read(byte[] b, int off, int len) throws IOException {
      int n = super.read(b, off, len);
      count(Math.max(0, n));
      return n;
    }

    private void count(int n) throws IOException {
      read += n;
      expanded += n;
      if (read > RATIO_FROM && read / packed > limits.ratio()) {
        throw new TooLarge(
            name, "The file is more than " + limits.ratio() + " times its packed size.");
      }
      if (expanded > limits.expanded()) {
        throw new TooLarge(
            name, "The package holds more than " + (limits.expanded() >> 30) + " GB.");
      }
    }
  }
}
