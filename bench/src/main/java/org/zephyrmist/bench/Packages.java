package org.zephyrmist.bench;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import org.zephyrmist.core.cartridge.CartridgeFacts;
import org.zephyrmist.core.cartridge.CartridgeReader;
import org.zephyrmist.core.cartridge.CartridgeWriter;
import org.zephyrmist.core.cartridge.Intake;
import org.zephyrmist.core.cartridge.Limits;
import org.zephyrmist.core.cartridge.PackageChoices;
import org.zephyrmist.core.cartridge.PackageFormat;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.KeySpace;
import org.zephyrmist.stage.Folders;

/** Reading and writing of packages in the core alone, against unpacking and packing their bytes. */
final class Packages {
  private static final double GOAL = 2.0;
  private static final int WARM = 3;
  private final int items;

  Packages(int items) {
    this.items = items;
  }

  /** Keeps items and fingerprints; files only where they are wanted again. */
  private static final class Memory implements Intake {
    final List<Item> items = new ArrayList<>();
    final Map<String, byte[]> files = new HashMap<>();

    @Override
    public synchronized FileRef file(String path, String name, String type, InputStream in)
        throws IOException {
      return made(name, type, in.readAllBytes());
    }

    @Override
    public synchronized FileRef made(String name, String type, byte[] bytes) {
      String sha = Fingerprint.of(Fingerprint.sha256().digest(bytes)).hex();
      files.put(sha, bytes);
      return new FileRef(sha, name, type, bytes.length);
    }

    @Override
    public KeySpace keySpace(CartridgeFacts facts) {
      return KeySpace.of("bench");
    }

    @Override
    public void item(Item item) {
      items.add(item);
    }

    @Override
    public void progress(int done, int total, String what) {}
  }

  List<Figure> run() throws Exception {
    Path folder = Folders.fresh("packages");
    Path file = LargePackage.write(folder, "Measured", items, 3);
    for (int i = 0; i < WARM; i++) {
      CartridgeReader.read(file, Limits.DEFAULT, new Memory());
      unzip(file);
    }
    double raw = Stopwatch.seconds(() -> unzip(file));
    Memory memory = new Memory();
    double reading = Stopwatch.seconds(() -> CartridgeReader.read(file, Limits.DEFAULT, memory));
    Map<String, byte[]> entries = entries(file);
    for (int i = 0; i < WARM; i++) {
      write(folder, memory);
      zip(folder, entries);
    }
    double packing = Stopwatch.seconds(() -> zip(folder, entries));
    double writing = Stopwatch.seconds(() -> write(folder, memory));
    return List.of(
        Figure.of("read a package", reading, raw, GOAL, "s").with("items", items),
        Figure.of("write a package", writing, packing, GOAL, "s").with("items", items));
  }

  private static void unzip(Path file) throws IOException {
    try (ZipFile zip = new ZipFile(file.toFile())) {
      for (ZipEntry e : Collections.list(zip.entries())) {
        try (InputStream in = new DigestInputStream(zip.getInputStream(e), Fingerprint.sha256())) {
          in.transferTo(OutputStream.nullOutputStream());
        }
      }
    }
  }

  private static Map<String, byte[]> entries(Path file) throws IOException {
    Map<String, byte[]> all = new LinkedHashMap<>();
    try (ZipFile zip = new ZipFile(file.toFile())) {
      for (ZipEntry e : Collections.list(zip.entries())) {
        try (InputStream in = zip.getInputStream(e)) {
          all.put(e.getName(), in.readAllBytes());
        }
      }
    }
    return all;
  }

  private static void zip(Path folder, Map<String, byte[]> entries) throws IOException {
    Path to = folder.resolve("raw.zip");
    try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(to))) {
      for (Map.Entry<String, byte[]> e : entries.entrySet()) {
        zip.putNextEntry(new ZipEntry(e.getKey()));
        zip.write(e.getValue());
        zip.closeEntry();
      }
    }
  }

  private static void write(Path folder, Memory memory) throws IOException {
    try (OutputStream out = Files.newOutputStream(folder.resolve("ours.zip"))) {
      CartridgeWriter.write(
          out,
          new CartridgeFacts("Measured", "", "en", "", "", false),
          memory.items,
          PackageChoices.all(PackageFormat.CC_1_3),
          sha -> new ByteArrayInputStream(memory.files.get(sha)));
    }
  }
}
