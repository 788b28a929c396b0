package org.zephyrmist.core.cartridge;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.w3c.dom.Element;

/** What metadata in a manifest says (IEEE LOM as profiled by Common Cartridge). */
final class ManifestFacts {
  private static final Pattern NAMESPACE = Pattern.compile("imsccv(\\d)p(\\d)");

  private ManifestFacts() {}

  /**
   * Whether roles are named and no learner is among them (LOM 5.5 intended end user role; Common
   * Cartridge allows Learner, Instructor, Mentor). Any other role does not make it students'.
   */
  static boolean forInstructorsOnly(Element r) {
    List<String> roles =
        Xml.at(r, "metadata", "lom").stream()
            .flatMap(lom -> Xml.children(lom, "educational").stream())
            .flatMap(ed -> Xml.children(ed, "intendedEndUserRole").stream())
            .map(role -> Xml.text(role, "value"))
            .toList();
    return !roles.isEmpty() && roles.stream().noneMatch(v -> v.equalsIgnoreCase("Learner"));
  }

  /** The package as a whole, from the root with its metadata and authorizations. */
  static CartridgeFacts of(Element root) {
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
    boolean thin = schema.toLowerCase(Locale.ROOT).contains("thin");
    String number =
        version.isEmpty() ? byNamespace(namespace) : version.replaceAll("(\\d\\.\\d).*", "$1");
    if (!schema.toLowerCase(Locale.ROOT).contains("common cartridge")
        && !namespace.contains("imscc")) {
      return "Content Packaging";
    }
    return (thin ? "Thin Common Cartridge " : "Common Cartridge ") + number;
  }

  private static String byNamespace(String namespace) {
    Matcher m = NAMESPACE.matcher(namespace);
    return m.find() ? m.group(1) + "." + m.group(2) : "1.0";
  }
}
