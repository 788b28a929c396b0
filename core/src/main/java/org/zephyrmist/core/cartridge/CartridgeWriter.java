package org.zephyrmist.core.cartridge;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.xml.stream.XMLStreamException;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.References;

/**
 * Writes items as a Common Cartridge 1.3. Reading it again gives the same titles, texts, links,
 * questions, files and order. Kinds that the standard has no resource for are left out and told.
 */
public final class CartridgeWriter {
  /** Opens the bytes of a file by its fingerprint. */
  public interface FileSource {
    InputStream open(String sha256) throws IOException;
  }

  private final ZipOutputStream zip;
  private final FileSource source;
  private final Map<String, String> filePaths = new LinkedHashMap<>();
  private final Map<String, String> itemPaths = new LinkedHashMap<>();
  private final List<Item> leftOut = new ArrayList<>();

  private CartridgeWriter(OutputStream out, FileSource source) {
    this.zip = new ZipOutputStream(out);
    this.source = source;
  }

  /**
   * Writes a package; the stream is finished, not closed.
   *
   * @param items each after the module that holds it, in outline order
   * @return items that the package does not hold, because the standard has no resource for them
   */
  public static List<Item> write(
      OutputStream out, CartridgeFacts facts, List<Item> items, FileSource source)
      throws IOException {
    CartridgeWriter w = new CartridgeWriter(out, source);
    try {
      w.assign(items);
      w.manifest(facts, items);
      w.contents(items);
      w.zip.finish();
    } catch (XMLStreamException e) {
      throw new IOException(e);
    }
    return List.copyOf(w.leftOut);
  }

  private void assign(List<Item> items) {
    for (Item item : items) {
      if (ResourceWriter.type(item.kind()).isPresent()) {
        String path =
            ResourceWriter.path(item).orElseGet(() -> file(item.content().madeOf().orElseThrow()));
        itemPaths.put(item.key().value(), path);
      } else if (item.kind() != Kind.MODULE) {
        leftOut.add(item);
        continue;
      }
      References.files(item.content().html()).forEach(f -> file(f.sha256(), f.name()));
    }
  }

  private String file(FileRef f) {
    return file(f.sha256(), f.name());
  }

  private String file(String sha256, String name) {
    return filePaths.computeIfAbsent(
        sha256, s -> "web_resources/" + s.substring(0, 12) + "/" + name);
  }

  private void manifest(CartridgeFacts facts, List<Item> items)
      throws IOException, XMLStreamException {
    Map<String, String> others = new LinkedHashMap<>(filePaths);
    others.values().removeAll(itemPaths.values());
    zip.putNextEntry(new ZipEntry("imsmanifest.xml"));
    new ManifestWriter(zip).write(facts, items, itemPaths, others);
    zip.closeEntry();
  }

  private void contents(List<Item> items) throws IOException, XMLStreamException {
    ResourceWriter writer = new ResourceWriter(this::refer);
    for (Item i : items) {
      String path = itemPaths.get(i.key().value());
      if (path != null && i.content().madeOf().isEmpty()) {
        zip.putNextEntry(new ZipEntry(path));
        writer.write(i, zip);
        zip.closeEntry();
      }
    }
    for (Map.Entry<String, String> f : filePaths.entrySet()) {
      zip.putNextEntry(new ZipEntry(f.getValue()));
      try (InputStream in = source.open(f.getKey())) {
        in.transferTo(zip);
      }
      zip.closeEntry();
    }
  }

  private String refer(String html) {
    return Html.mapAddresses(
        html,
        a ->
            References.asFile(a)
                .map(f -> "$IMS-CC-FILEBASE$/" + filePaths.get(f.sha256()) + f.fragment())
                .or(
                    () ->
                        References.asItem(a)
                            .flatMap(i -> Optional.ofNullable(itemPaths.get(i.key().value())))
                            .map(path -> "$IMS-CC-FILEBASE$/" + path))
                .orElse(a));
  }
}
