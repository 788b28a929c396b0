package org.zephyrmist.core.cartridge;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.w3c.dom.Element;

/**
 * The manifest of a package (IMS Content Packaging 1.2 as profiled by Common Cartridge).
 *
 * @param outline items at the top of the organization
 * @param resources by identifier, in their order
 */
record Manifest(CartridgeFacts facts, List<Node> outline, Map<String, Resource> resources) {

  /** An item of the organization. */
  record Node(String id, String title, Optional<String> resource, List<Node> children) {}

  /**
   * A resource.
   *
   * @param href path of its main file, if it has one
   * @param inline its XML, where the manifest holds it itself
   * @param instructorsOnly its metadata names no learner among the intended roles
   */
  record Resource(
      String id,
      String type,
      Optional<String> href,
      List<String> files,
      Optional<Element> inline,
      boolean instructorsOnly,
      boolean restricted) {}

  static Manifest read(Element root, Limits limits) throws CartridgeException {
    if (!"manifest".equals(root.getLocalName())) {
      throw new CartridgeException(
          "imsmanifest.xml",
          "The file is not a manifest: it begins with <" + root.getLocalName() + ">.",
          "Choose a Common Cartridge package.");
    }
    Map<String, Resource> resources = new LinkedHashMap<>();
    String base = Xml.child(root, "resources").map(Manifest::base).orElse("");
    for (Element r :
        Xml.at(root, "resources").map(e -> Xml.children(e, "resource")).orElse(List.of())) {
      Resource resource = resource(r, base(root) + base);
      if (resources.put(resource.id(), resource) != null) {
        throw new CartridgeException(
            "imsmanifest.xml",
            "Two resources have the identifier " + resource.id() + ".",
            "Ask for a fresh export.");
      }
    }
    List<Node> outline = new ArrayList<>();
    for (Element o :
        Xml.at(root, "organizations").map(e -> Xml.children(e, "organization")).orElse(List.of())) {
      for (Element top : Xml.children(o, "item")) {
        Node node = node(top, 1, limits);
        boolean wrapper = node.title().isEmpty() && node.resource().isEmpty();
        outline.addAll(wrapper ? node.children() : List.of(node));
      }
    }
    return new Manifest(facts(root), List.copyOf(outline), resources);
  }

  private static Node node(Element e, int depth, Limits limits) throws CartridgeException {
    if (depth > limits.depth()) {
      throw new CartridgeException(
          "imsmanifest.xml",
          "The outline is deeper than " + limits.depth() + " levels.",
          "Flatten the outline, or raise the limit.");
    }
    List<Node> children = new ArrayList<>();
    for (Element c : Xml.children(e, "item")) {
      children.add(node(c, depth + 1, limits));
    }
    String ref = e.getAttribute("identifierref");
    return new Node(
        e.getAttribute("identifier"),
        Xml.text(e, "title").replaceAll("\\s+", " "),
        ref.isBlank() ? Optional.empty() : Optional.of(ref.strip()),
        List.copyOf(children));
  }

  private static Resource resource(Element r, String base) {
    String own = base + base(r);
    List<String> files = new ArrayList<>();
    for (Element f : Xml.children(r, "file")) {
      files.add(Paths.decode(own + f.getAttribute("href")));
    }
    String href = r.getAttribute("href");
    Optional<String> main =
        !href.isBlank()
            ? Optional.of(Paths.decode(own + href.strip()))
            : files.stream().findFirst();
    Optional<Element> inline =
        Xml.children(r).stream()
            .filter(
                c ->
                    !List.of("file", "dependency", "metadata", "variant")
                        .contains(c.getLocalName()))
            .findFirst();
    return new Resource(
        r.getAttribute("identifier"),
        r.getAttribute("type").strip(),
        main,
        List.copyOf(files),
        inline,
        forInstructorsOnly(r),
        r.getAttribute("protected").equals("true"));
  }

  /** LOM 5.5 intended end user role; Common Cartridge allows Learner, Instructor, Mentor. */
  private static boolean forInstructorsOnly(Element r) {
    List<String> roles =
        Xml.at(r, "metadata", "lom").stream()
            .flatMap(lom -> Xml.children(lom, "educational").stream())
            .flatMap(ed -> Xml.children(ed, "intendedEndUserRole").stream())
            .map(role -> Xml.text(role, "value"))
            .toList();
    return !roles.isEmpty()
        && roles.stream()
            .noneMatch(v -> v.equalsIgnoreCase("Learner") || v.equalsIgnoreCase("Mentor"));
  }

  private static CartridgeFacts facts(Element root) {
    Element meta = Xml.child(root, "metadata").orElse(root);
    Optional<Element> lom = Xml.child(meta, "lom");
    String schema = Xml.text(meta, "schema");
    String version = Xml.text(meta, "schemaversion");
    String namespace = Optional.ofNullable(root.getNamespaceURI()).orElse("");
    boolean authorised =
        Xml.child(meta, "authorizations").isPresent()
            || Xml.child(root, "authorizations").isPresent();
    return new CartridgeFacts(
        lom.map(l -> strings(l, "general", "title")).orElse(""),
        lom.map(l -> strings(l, "general", "description")).orElse(""),
        lom.map(l -> Xml.text(l, "general", "language")).orElse(""),
        lom.map(l -> strings(l, "rights", "description")).orElse(""),
        profile(schema, version, namespace),
        authorised);
  }

  private static String strings(Element lom, String part, String name) {
    return Xml.at(lom, part, name).stream()
        .flatMap(e -> Xml.children(e).stream())
        .map(s -> s.getTextContent().strip())
        .filter(s -> !s.isEmpty())
        .distinct()
        .collect(Collectors.joining(" "));
  }

  private static String profile(String schema, String version, String namespace) {
    boolean thin = schema.toLowerCase(java.util.Locale.ROOT).contains("thin");
    String number =
        version.isEmpty() ? byNamespace(namespace) : version.replaceAll("(\\d\\.\\d).*", "$1");
    if (!schema.toLowerCase(java.util.Locale.ROOT).contains("common cartridge")
        && !namespace.contains("imscc")) {
      return "Content Packaging";
    }
    return (thin ? "Thin Common Cartridge " : "Common Cartridge ") + number;
  }

  private static String byNamespace(String namespace) {
    java.util.regex.Matcher m =
        java.util.regex.Pattern.compile("imsccv(\\d)p(\\d)").matcher(namespace);
    return m.find() ? m.group(1) + "." + m.group(2) : "1.0";
  }

  private static String base(Element e) {
    return e.getAttributeNS("http://www.w3.org/XML/1998/namespace", "base");
  }
}
