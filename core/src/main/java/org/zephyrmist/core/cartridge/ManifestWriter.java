package org.zephyrmist.core.cartridge;

import java.io.OutputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javax.xml.stream.XMLStreamException;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.xml.XmlOut;

/** Writes the manifest of a package (Content Packaging 1.2 in the profile of Common Cartridge). */
final class ManifestWriter {
  private static final String XSD = "http://www.imsglobal.org/xsd/";
  private static final String CATALOG = "Zephyrmist";
  private final XmlOut x;
  private final PackageFormat format;

  ManifestWriter(OutputStream out, PackageFormat format) throws XMLStreamException {
    this.x = new XmlOut(out);
    this.format = format;
  }

  /**
   * @param items in outline order
   * @param needs paths of the files that each item refers to, by its key
   */
  void write(
      CartridgeFacts facts, List<Item> items, PackagePaths paths, Map<String, Set<String>> needs)
      throws XMLStreamException {
    x.open(
        "manifest",
        "identifier",
        "manifest",
        "xmlns",
        format.name(XSD + "imsccv1p*/imscp_v1p1"),
        "xmlns:lom",
        format.name("http://ltsc.ieee.org/xsd/imsccv1p*/LOM/resource"),
        "xmlns:lomimscc",
        format.name("http://ltsc.ieee.org/xsd/imsccv1p*/LOM/manifest"),
        "xmlns:csm",
        format.name(XSD + "imsccv1p*/imscsmd_v1p0"));
    metadata(facts);
    x.open("organizations")
        .open("organization", "identifier", "organization", "structure", "rooted-hierarchy")
        .open("item", "identifier", "root");
    outline(byParent(items), Optional.empty(), paths);
    x.close().close().close();
    resources(items, paths, needs);
    x.close().end();
  }

  private void metadata(CartridgeFacts facts) throws XMLStreamException {
    x.open("metadata").text("schema", format.schema());
    x.text("schemaversion", format.schemaVersion());
    x.open("lomimscc:lom").open("lomimscc:general");
    if (!facts.identifier().isEmpty()) {
      x.open("lomimscc:identifier").text("lomimscc:catalog", CATALOG);
      x.text("lomimscc:entry", facts.identifier()).close();
    }
    string("title", facts.title(), facts.language());
    x.some("lomimscc:language", facts.language());
    if (!facts.description().isEmpty()) {
      string("description", facts.description(), facts.language());
    }
    for (String keyword : facts.keywords()) {
      string("keyword", keyword, facts.language());
    }
    x.close();
    if (!facts.publisher().isEmpty()) {
      x.open("lomimscc:lifeCycle").open("lomimscc:contribute").open("lomimscc:role");
      x.text("lomimscc:source", "LOMv1.0").text("lomimscc:value", "publisher").close();
      x.text("lomimscc:entity", vCard(facts.publisher())).close().close();
    }
    if (!facts.rights().isEmpty()) {
      x.open("lomimscc:rights");
      string("description", facts.rights(), facts.language());
      x.close();
    }
    x.close().close();
  }

  /** A name alone as a vCard (RFC 2426). */
  private static String vCard(String name) {
    return "BEGIN:VCARD\nVERSION:3.0\nFN:" + name + "\nEND:VCARD";
  }

  private void string(String name, String text, String language) throws XMLStreamException {
    x.open("lomimscc:" + name);
    if (language.isEmpty()) {
      x.text("lomimscc:string", text);
    } else {
      x.text("lomimscc:string", text, "language", language);
    }
    x.close();
  }

  private static Map<Optional<String>, List<Item>> byParent(List<Item> items) {
    Map<Optional<String>, List<Item>> all = new HashMap<>();
    items.forEach(i -> all.computeIfAbsent(i.place().parent(), p -> new ArrayList<>()).add(i));
    return all;
  }

  /** Banks have no place in it (Common Cartridge, "Question bank"). */
  private void outline(
      Map<Optional<String>, List<Item>> items, Optional<String> parent, PackagePaths paths)
      throws XMLStreamException {
    for (Item i : items.getOrDefault(parent, List.of())) {
      String id = PackagePaths.identifier("i_", i.key().value());
      if (i.kind() == Kind.MODULE) {
        x.open("item", "identifier", id).text("title", i.title());
        outline(items, Optional.of(i.key().value()), paths);
        x.close();
      } else if (paths.of(i.key()).isPresent() && i.kind() != Kind.QUESTION_BANK) {
        x.open("item", "identifier", id, "identifierref", resource(i));
        x.text("title", i.title()).close();
      }
    }
  }

  private static String resource(Item i) {
    return PackagePaths.identifier("r_", i.key().value());
  }

  private void resources(List<Item> items, PackagePaths paths, Map<String, Set<String>> needs)
      throws XMLStreamException {
    x.open("resources");
    Map<String, String> files = new LinkedHashMap<>();
    paths
        .files()
        .forEach(
            (path, sha) ->
                files.put(path, PackagePaths.identifier("f_", files.size() + "_" + sha)));
    for (Item i : items) {
      Optional<String> path = paths.of(i.key());
      if (path.isPresent()) {
        resource(i, path.get(), needs.getOrDefault(i.key().value(), Set.of()), files);
      }
    }
    for (Map.Entry<String, String> f : files.entrySet()) {
      String href = PackagePaths.href(f.getKey());
      x.open("resource", "identifier", f.getValue(), "type", "webcontent", "href", href);
      x.empty("file", "href", href).close();
    }
    x.close();
  }

  private void resource(Item i, String path, Set<String> needs, Map<String, String> files)
      throws XMLStreamException {
    String type = format.type(i.kind()).orElseThrow();
    String href = PackagePaths.href(path);
    if (type.equals("webcontent")) {
      x.open("resource", "identifier", resource(i), "type", type, "href", href);
    } else {
      x.open("resource", "identifier", resource(i), "type", type);
    }
    if (i.visibility().instructorsOnly() || !i.standards().isEmpty()) {
      x.open("metadata");
      audience(i);
      standards(i.standards());
      x.close();
    }
    x.empty("file", "href", href);
    for (String need : needs) {
      if (!need.equals(path)) {
        x.empty("dependency", "identifierref", files.get(need));
      }
    }
    x.close();
  }

  private void audience(Item i) throws XMLStreamException {
    if (i.visibility().instructorsOnly()) {
      x.open("lom:lom").open("lom:educational").open("lom:intendedEndUserRole");
      x.text("lom:source", format.name("IMSGLC_CC_Rolesv1p*")).text("lom:value", "Instructor");
      x.close().close().close();
    }
  }

  private void standards(List<Wording.Standard> standards) throws XMLStreamException {
    if (standards.isEmpty()) {
      return;
    }
    x.open("csm:curriculumStandardsMetadataSet").open("csm:curriculumStandardsMetadata");
    x.open("csm:setOfGUIDs");
    for (Wording.Standard s : standards) {
      x.open("csm:labelledGUID").some("csm:label", s.label()).text("csm:GUID", s.id()).close();
    }
    x.close().close().close();
  }
}
