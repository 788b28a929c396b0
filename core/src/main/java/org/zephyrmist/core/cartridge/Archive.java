package org.zephyrmist.core.cartridge;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.text.Normalizer;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.apache.commons.compress.archivers.zip.UnicodePathExtraField;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.zephyrmist.core.archive.ZipDirectory;

/** A ZIP archive (APPNOTE 6.3), read with distrust: names, sizes and ratios are checked. */
final class Archive implements Closeable {
  private static final Pattern DRIVE = Pattern.compile("^[A-Za-z]:.*");
  private static final Charset CP437 = Charset.forName("IBM437");
  private final ZipFile zip;
  private final Limits limits;
  private final long packed;
  private final Map<String, ZipArchiveEntry> entries = new LinkedHashMap<>();

  /** The first name of each folded form; not of those that are their own, which most are. */
  private final Map<String, String> foldedNames = new HashMap<>();

  private long expanded;

  private Archive(ZipFile zip, Limits limits, long packed) {
    this.zip = zip;
    this.limits = limits;
    this.packed = packed;
  }

  static Archive open(Path file, Limits limits) throws CartridgeException, IOException {
    if (!ZipDirectory.holdsAtMost(file, limits.entries())) {
      throw tooMany(limits);
    }
    ZipFile zip;
    try {
      zip = ZipFile.builder().setPath(file).get();
    } catch (IOException | IllegalArgumentException e) {
      throw new CartridgeException(
          "",
          "This is not a ZIP archive, or it was cut off.",
          "Download it again, and choose the .imscc or .zip file itself.");
    }
    Archive archive = new Archive(zip, limits, Files.size(file));
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
      if (e.isDirectory() || name.endsWith("/")) {
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
      String folded = folded(name);
      if (!folded.equals(name) && !entries.containsKey(folded)) {
        foldedNames.putIfAbsent(folded, name);
      }
      if (entries.size() > limits.entries()) {
        throw tooMany(limits);
      }
    }
  }

  private static CartridgeException tooMany(Limits limits) {
    return new CartridgeException(
        "",
        "The archive holds more than " + limits.entries() + " files.",
        "Split the package, or raise the limit.");
  }

  private String safeName(ZipArchiveEntry e) throws CartridgeException {
    String name = name(e).replace('\\', '/');
    boolean escapes =
        name.startsWith("/")
            || (name.length() > 1 && name.charAt(1) == ':' && DRIVE.matcher(name).matches())
            || name.indexOf('\0') >= 0
            || (name.contains("..") && List.of(name.split("/", -1)).contains(".."));
    if (escapes || e.isUnixSymlink()) {
      throw new CartridgeException(
          name,
          e.isUnixSymlink()
              ? "The entry is a link to another place."
              : "The path leads out of the archive.",
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

  /**
   * The name in UTF-8; where its bytes are not, in code page 437 (APPNOTE 4.4.17 and appendix D).
   */
  private static String name(ZipArchiveEntry e) {
    byte[] raw = e.getRawName();
    boolean told =
        e.getGeneralPurposeBit().usesUTF8ForNames()
            || e.getExtraField(UnicodePathExtraField.UPATH_ID) != null;
    if (told || raw == null) {
      return e.getName();
    }
    try {
      String name = StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(raw)).toString();
      return name.equals(e.getName()) ? e.getName() : name;
    } catch (CharacterCodingException notUtf8) {
      return new String(raw, CP437);
    }
  }

  /** Letter case and the two ways to write an accent do not tell names apart. */
  private static String folded(String name) {
    boolean plain = Normalizer.isNormalized(name, Normalizer.Form.NFC);
    String n = plain ? name : Normalizer.normalize(name, Normalizer.Form.NFC);
    return n.toLowerCase(Locale.ROOT);
  }

  Set<String> names() {
    return entries.keySet();
  }

  /** The exact name, or the first that differs only in letter case or the writing of accents. */
  Optional<String> find(String name) {
    if (entries.containsKey(name)) {
      return Optional.of(name);
    }
    String folded = folded(name);
    String alike = foldedNames.get(folded);
    return alike == null && entries.containsKey(folded)
        ? Optional.of(folded)
        : Optional.ofNullable(alike);
  }

  /**
   * The file that an address in a manifest or page means: as written, or with percent signs
   * resolved (RFC 3986, section 2.1).
   */
  Optional<String> findAddress(String address) {
    return find(Paths.plain(address)).or(() -> find(Paths.decode(address)));
  }

  /** A stream that stops at the limits and where the data is damaged; to be opened once a file. */
  InputStream open(String name) throws IOException {
    return open(name, this::count);
  }

  /** The same once more, not counted again for the package; for any thread. */
  InputStream again(String name) throws IOException {
    return open(name, (file, n) -> {});
  }

  private InputStream open(String name, Guarded.Counter counter) throws IOException {
    ZipArchiveEntry e = entries.get(name);
    try {
      synchronized (zip) { // looks for the start of the data with the one position of the file
        return new Guarded(zip.getInputStream(e), e, name, limits, counter);
      }
    } catch (IOException damaged) {
      throw Unfit.damaged(name, damaged);
    }
  }

  /** Bytes of a file, as the archive's directory says. */
  long size(String name) {
    return entries.get(name).getSize();
  }

  private void count(String name, int n) throws Unfit {
    expanded += n;
    if (expanded > limits.expanded()) {
      throw Unfit.large(name, "The package holds more than " + (limits.expanded() >> 30) + " GB.");
    }
    if (expanded > 64 * Guarded.RATIO_FROM && expanded / packed > limits.ratio()) {
      throw Unfit.large(
          name, "The package is more than " + limits.ratio() + " times its packed size.");
    }
  }

  /** A whole file of at most so many bytes. */
  byte[] bytes(String name, long most) throws IOException, CartridgeException {
    try (InputStream in = again(name)) {
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
}
