package org.zephyrmist.core.cartridge;

import java.io.OutputStream;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.xml.stream.XMLStreamException;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;

/** Writes the manifest of a package (IMS Content Packaging 1.2 in the profile of CC 1.3). */
final class ManifestWriter {
  private final XmlOut x;

  ManifestWriter(OutputStream out) throws XMLStreamException {
    x = new XmlOut(out);
  }

  /**
   * @param items in outline order
   * @param paths of the resource of each item that has one, by key
   * @param others paths of files that are no items, by fingerprint
   */
  void write(
      CartridgeFacts facts, List<Item> items, Map<String, String> paths, Map<String, String> others)
      throws XMLStreamException {
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
    metadata(facts);
    x.open("organizations")
        .open("organization", "identifier", "org", "structure", "rooted-hierarchy");
    x.open("item", "identifier", "root");
    outline(items, paths, Optional.empty());
    x.close().close().close();
    x.open("resources");
    for (Item i : items) {
      if (paths.containsKey(i.key().value())) {
        resource(i, paths.get(i.key().value()));
      }
    }
    for (Map.Entry<String, String> f : others.entrySet()) {
      String id = "f-" + f.getKey();
      x.open("resource", "identifier", id, "type", "webcontent", "href", f.getValue());
      x.open("file", "href", f.getValue()).close().close();
    }
    x.close().close().end();
  }

  private void metadata(CartridgeFacts facts) throws XMLStreamException {
    x.open("metadata").text("schema", "IMS Common Cartridge").text("schemaversion", "1.3.0");
    x.open("lomimscc:lom").open("lomimscc:general");
    x.open("lomimscc:title").text("lomimscc:string", facts.title()).close();
    x.text("lomimscc:language", facts.language());
    x.open("lomimscc:description").text("lomimscc:string", facts.description()).close().close();
    x.open("lomimscc:rights").open("lomimscc:description");
    x.text("lomimscc:string", facts.rights()).close().close().close().close();
  }

  private void outline(List<Item> items, Map<String, String> paths, Optional<String> parent)
      throws XMLStreamException {
    for (Item i : items) {
      if (!i.place().parent().equals(parent)) {
        continue;
      }
      if (i.kind() == Kind.MODULE) {
        x.open("item", "identifier", i.key().value()).text("title", i.title());
        outline(items, paths, Optional.of(i.key().value()));
        x.close();
      } else if (paths.containsKey(i.key().value())) {
        x.open("item", "identifier", i.key().value(), "identifierref", "r-" + i.key());
        x.text("title", i.title()).close();
      }
    }
  }

  private void resource(Item i, String path) throws XMLStreamException {
    String type = ResourceWriter.type(i.kind()).orElseThrow();
    x.open("resource", "identifier", "r-" + i.key(), "type", type, "href", path);
    if (i.visibility().instructorsOnly()) {
      x.open("metadata").open("lom:lom").open("lom:educational").open("lom:intendedEndUserRole");
      x.text("lom:source", "IMSGLC_CC_Rolesv1p3").text("lom:value", "Instructor");
      x.close().close().close().close();
    }
    x.open("file", "href", path).close().close();
  }
}
