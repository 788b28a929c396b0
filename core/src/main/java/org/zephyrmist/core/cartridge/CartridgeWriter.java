package org.zephyrmist.core.cartridge;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.xml.stream.XMLStreamException;
import org.jsoup.nodes.Entities;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.References;

/**
 * Writes items as a Common Cartridge 1.3. Reading it again gives the same titles, texts, links,
 * questions, files and order. Kinds that the standard has no resource for (rubric, outcome, grade
 * category, announcement, group set) are left out.
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
  private final List<Part> parts = new ArrayList<>();

  private record Part(Item item, String type, String path) {}

  private CartridgeWriter(OutputStream out, FileSource source) {
    this.zip = new ZipOutputStream(out);
    this.source = source;
  }

  /**
   * Writes a package; the stream is finished, not closed.
   *
   * @param items each after the module that holds it, in outline order
   */
  public static void write(
      OutputStream out, CartridgeFacts facts, List<Item> items, FileSource source)
      throws IOException {
    CartridgeWriter w = new CartridgeWriter(out, source);
    try {
      w.assign(items);
      w.manifest(facts, items);
      w.contents();
      w.zip.finish();
    } catch (XMLStreamException e) {
      throw new IOException(e);
    }
  }

  private void assign(List<Item> items) {
    for (Item item : items) {
      String path = "i/" + item.key();
      Content c = item.content();
      if (c instanceof Content.Page) {
        add(item, "webcontent", "web_resources/" + item.key() + ".html");
      } else if (c instanceof Content.File f) {
        add(item, "webcontent", file(f.file()));
      } else if (c instanceof Content.Discussion) {
        add(item, "imsdt_xmlv1p3", path + ".xml");
      } else if (c instanceof Content.WebLink) {
        add(item, "imswl_xmlv1p3", path + ".xml");
      } else if (c instanceof Content.ToolLink) {
        add(item, "imsbasiclti_xmlv1p3", path + ".xml");
      } else if (c instanceof Content.Assignment) {
        add(item, "assignment_xmlv1p0", path + ".xml");
      } else if (c instanceof Content.Quiz q) {
        add(item, "imsqti_xmlv1p2/imscc_xmlv1p3/assessment", file(q.questions()));
      } else if (c instanceof Content.QuestionBank b) {
        add(item, "imsqti_xmlv1p2/imscc_xmlv1p3/question-bank", file(b.questions()));
      }
      References.files(AspectForms.html(c)).forEach(f -> file(f.sha256(), f.name()));
    }
  }

  private void add(Item item, String type, String path) {
    parts.add(new Part(item, type, path));
    itemPaths.put(item.key().value(), path);
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
    zip.putNextEntry(new ZipEntry("imsmanifest.xml"));
    XmlOut x = new XmlOut(zip);
    x.open(
        "manifest",
        "identifier",
        "manifest",
        "xmlns",
        "http://www.imsglobal.org/xsd/imsccv1p3/imscp_v1p1",
        "xmlns:lom",
        "http://ltsc.ieee.org/xsd/imsccv1p3/LOM/resource",
        "xmlns:lomimscc",
        "http://ltsc.ieee.org/xsd/imsccv1p3/LOM/manifest");
    x.open("metadata").text("schema", "IMS Common Cartridge").text("schemaversion", "1.3.0");
    x.open("lomimscc:lom").open("lomimscc:general");
    x.open("lomimscc:title").text("lomimscc:string", facts.title()).close();
    x.text("lomimscc:language", facts.language());
    x.open("lomimscc:description").text("lomimscc:string", facts.description()).close().close();
    x.open("lomimscc:rights").open("lomimscc:description");
    x.text("lomimscc:string", facts.rights()).close().close().close().close();
    x.open("organizations")
        .open("organization", "identifier", "org", "structure", "rooted-hierarchy");
    x.open("item", "identifier", "root");
    outline(x, items, Optional.empty());
    x.close().close().close();
    x.open("resources");
    for (Part p : parts) {
      x.open("resource", "identifier", "r-" + p.item().key(), "type", p.type(), "href", p.path());
      if (p.item().visibility().instructorsOnly()) {
        x.open("metadata").open("lom:lom").open("lom:educational").open("lom:intendedEndUserRole");
        x.text("lom:source", "IMSGLC_CC_Rolesv1p3").text("lom:value", "Instructor");
        x.close().close().close().close();
      }
      x.open("file", "href", p.path()).close().close();
    }
    for (Map.Entry<String, String> f : filePaths.entrySet()) {
      if (!itemPaths.containsValue(f.getValue())) {
        x.open(
            "resource",
            "identifier",
            "f-" + f.getKey(),
            "type",
            "webcontent",
            "href",
            f.getValue());
        x.open("file", "href", f.getValue()).close().close();
      }
    }
    x.close().close().end();
    zip.closeEntry();
  }

  private void outline(XmlOut x, List<Item> items, Optional<String> parent)
      throws XMLStreamException {
    for (Item i : items) {
      if (!i.place().parent().equals(parent)) {
        continue;
      }
      if (i.content() instanceof Content.Module) {
        x.open("item", "identifier", i.key().value()).text("title", i.title());
        outline(x, items, Optional.of(i.key().value()));
        x.close();
      } else if (itemPaths.containsKey(i.key().value())) {
        x.open("item", "identifier", i.key().value(), "identifierref", "r-" + i.key());
        x.text("title", i.title()).close();
      }
    }
  }

  private void contents() throws IOException, XMLStreamException {
    for (Part p : parts) {
      if (!filePaths.containsValue(p.path())) {
        zip.putNextEntry(new ZipEntry(p.path()));
        part(p);
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

  private void part(Part p) throws IOException, XMLStreamException {
    Content c = p.item().content();
    if (c instanceof Content.Page page) {
      String html =
          "<!DOCTYPE html><html><head><meta charset=\"utf-8\"><title>"
              + Entities.escape(p.item().title())
              + "</title></head><body>"
              + refer(page.html())
              + "</body></html>";
      zip.write(html.getBytes(StandardCharsets.UTF_8));
      return;
    }
    XmlOut x = new XmlOut(zip);
    if (c instanceof Content.Discussion d) {
      x.open("topic", "xmlns", "http://www.imsglobal.org/xsd/imsccv1p3/imsdt_v1p3");
      x.text("title", p.item().title()).html("text", refer(d.html()));
    } else if (c instanceof Content.WebLink w) {
      x.open("webLink", "xmlns", "http://www.imsglobal.org/xsd/imsccv1p3/imswl_v1p3");
      x.text("title", p.item().title());
      x.open("url", "href", w.address(), "target", w.newWindow() ? "_blank" : "_self").close();
    } else if (c instanceof Content.ToolLink t) {
      x.open(
          "cartridge_basiclti_link",
          "xmlns",
          "http://www.imsglobal.org/xsd/imslticc_v1p3",
          "xmlns:blti",
          "http://www.imsglobal.org/xsd/imsbasiclti_v1p0",
          "xmlns:lticm",
          "http://www.imsglobal.org/xsd/imslticm_v1p0");
      x.text("blti:title", p.item().title()).text("blti:description", refer(t.html()));
      x.open("blti:custom");
      for (Map.Entry<String, String> e : t.parameters().entrySet()) {
        x.property("lticm:property", e.getKey(), e.getValue());
      }
      x.close().text("blti:secure_launch_url", t.address());
    } else if (c instanceof Content.Assignment a) {
      x.open(
          "assignment",
          "xmlns",
          "http://www.imsglobal.org/xsd/imscc_extensions/assignment",
          "identifier",
          p.item().key().value());
      x.text("title", p.item().title()).html("text", refer(a.html()));
      if (a.grading().points().isPresent()) {
        x.open("gradable", "points_possible", a.grading().points().get().toPlainString());
        x.close();
      }
    }
    x.close().end();
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
