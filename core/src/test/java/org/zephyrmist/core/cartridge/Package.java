package org.zephyrmist.core.cartridge;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.KeySpace;

/** A package made by hand, and an intake that remembers. */
final class Package {
  private final Map<String, byte[]> entries = new LinkedHashMap<>();

  static Package of(String manifest) {
    return new Package().with("imsmanifest.xml", manifest);
  }

  /** A Common Cartridge 1.2 manifest of these organization items and resources. */
  static Package cc12(String items, String resources) {
    return of(
        """
        <?xml version="1.0" encoding="UTF-8"?>
        <manifest identifier="m" xmlns="http://www.imsglobal.org/xsd/imsccv1p2/imscp_v1p1"
          xmlns:lomimscc="http://ltsc.ieee.org/xsd/imsccv1p2/LOM/manifest">
          <metadata><schema>IMS Common Cartridge</schema><schemaversion>1.2.0</schemaversion>
            <lomimscc:lom><lomimscc:general><lomimscc:title>
              <lomimscc:string language="en">Stage Light</lomimscc:string>
            </lomimscc:title></lomimscc:general></lomimscc:lom></metadata>
          <organizations><organization identifier="o" structure="rooted-hierarchy">
            <item identifier="root">%s</item></organization></organizations>
          <resources>%s</resources>
        </manifest>"""
            .formatted(items, resources));
  }

  Package with(String name, String text) {
    entries.put(name, text.getBytes(StandardCharsets.UTF_8));
    return this;
  }

  Package with(String name, byte[] bytes) {
    entries.put(name, bytes);
    return this;
  }

  byte[] bytes(String name) {
    return entries.get(name);
  }

  Path write(Path folder) throws IOException {
    Path file = Files.createTempFile(folder, "package", ".zip");
    try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
      for (Map.Entry<String, byte[]> e : entries.entrySet()) {
        zip.putNextEntry(new ZipEntry(e.getKey()));
        zip.write(e.getValue());
        zip.closeEntry();
      }
    }
    return file;
  }

  /** Keeps everything in memory. */
  static final class Memory implements Intake {
    @Override
    public KeySpace keySpace(CartridgeFacts facts) {
      return KeySpace.of(facts.title());
    }

    final List<Item> items = new ArrayList<>();
    final Map<String, byte[]> files = new ConcurrentHashMap<>();
    final List<String> paths = new java.util.ArrayList<>();

    @Override
    public FileRef file(String path, String name, String mediaType, InputStream in)
        throws IOException {
      byte[] all = in.readAllBytes();
      MessageDigest digest = Fingerprint.sha256();
      String sha = Fingerprint.of(digest.digest(all)).hex();
      files.put(sha, all);
      paths.add(path);
      return new FileRef(sha, name, mediaType, all.length);
    }

    @Override
    public synchronized FileRef made(String name, String mediaType, byte[] content) {
      String sha = Fingerprint.of(Fingerprint.sha256().digest(content)).hex();
      files.put(sha, content);
      return new FileRef(sha, name, mediaType, content.length);
    }

    @Override
    public void item(Item item) {
      items.add(item);
    }

    @Override
    public void progress(int done, int total, String what) {}

    Item titled(String title) {
      return items.stream().filter(i -> i.title().equals(title)).findFirst().orElseThrow();
    }
  }
}
