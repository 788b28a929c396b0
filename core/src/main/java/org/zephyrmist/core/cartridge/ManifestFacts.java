package org.zephyrmist.core.cartridge;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.w3c.dom.Element;
import org.zephyrmist.core.content.Addresses;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.xml.Elements;

/** What metadata in a manifest says (IEEE LOM as profiled by Common Cartridge). */
final class ManifestFacts {
  private static final Pattern NAMESPACE = Pattern.compile("imsccv(\\d)p(\\d)");
  private static final Pattern FORMATTED_NAME =
      Pattern.compile("(?im)^\\s*(?:FN|ORG)(?:;[^:]*)?:\\s*(.+?)\\s*$");

  private ManifestFacts() {}

  /**
   * Whether roles are named and no learner is among them (LOM 5.5 intended end user role; Common
   * Cartridge allows Learner, Instructor, Mentor). Any other role does not make it students'.
   */
  static boolean forInstructorsOnly(Element r) {
    List<String> roles =
        Elements.at(r, "metadata", "lom").stream()
            .flatMap(lom -> Elements.children(lom, "educational").stream())
            .flatMap(ed -> Elements.children(ed, "intendedEndUserRole").stream())
            .map(role -> Elements.text(role, "value"))
            .toList();
    return !roles.isEmpty() && roles.stream().noneMatch(v -> v.equalsIgnoreCase("Learner"));
  }

  /** Statements of a curriculum (Common Cartridge 1.2, "Curriculum Standards Metadata"). */
  static List<Wording.Standard> standards(Element r) {
    return Elements.at(r, "metadata", "curriculumStandardsMetadataSet").stream()
        .flatMap(s -> Elements.children(s, "curriculumStandardsMetadata").stream())
        .flatMap(s -> Elements.children(s, "setOfGUIDs").stream())
        .flatMap(s -> Elements.children(s, "labelledGUID").stream())
        .map(
            g ->
                new Wording.Standard(
                    Titles.clean(Elements.text(g, "label")), Elements.text(g, "GUID")))
        .filter(g -> !g.id().isEmpty() && g.id().length() <= Addresses.MOST)
        .distinct()
        .toList();
  }

  /** The package as a whole, from the root with its metadata and authorizations. */
  static CartridgeFacts of(Element root) {
    Element meta = Elements.child(root, "metadata").orElse(root);
    Element lom = Elements.child(meta, "lom").orElse(root);
    String schema = Elements.text(meta, "schema");
    String version = Elements.text(meta, "schemaversion");
    String namespace = Optional.ofNullable(root.getNamespaceURI()).orElse("");
    Optional<Element> asks =
        Elements.child(meta, "authorizations").or(() -> Elements.child(root, "authorizations"));
    String language = Elements.text(lom, "general", "language");
    return new CartridgeFacts(
        string(lom, language, "general", "title"),
        string(lom, language, "general", "description"),
        language,
        string(lom, language, "rights", "description"),
        profile(schema, version, namespace),
        asks.isPresent(),
        identifier(root, lom),
        publisher(lom),
        asks.map(ManifestFacts::asks).orElse(""),
        keywords(lom),
        Titles.clean(Elements.text(lom, "educational", "context", "value")),
        Titles.clean(Elements.text(lom, "rights", "cost", "value")));
  }

  /** The catalogue's number of the package if it has one, else the manifest's own identifier. */
  private static String identifier(Element root, Element lom) {
    String entry = Elements.text(lom, "general", "identifier", "entry");
    return entry.isEmpty() ? root.getAttribute("identifier").strip() : entry;
  }

  /** Whoever published it (LOM 2.3, a vCard: RFC 2426). */
  private static String publisher(Element lom) {
    return Elements.child(lom, "lifeCycle").stream()
        .flatMap(l -> Elements.children(l, "contribute").stream())
        .filter(c -> Elements.text(c, "role", "value").equalsIgnoreCase("publisher"))
        .map(c -> Elements.text(c, "entity"))
        .map(v -> FORMATTED_NAME.matcher(v).results().map(m -> m.group(1)).findFirst().orElse(v))
        .map(Titles::clean)
        .findFirst()
        .orElse("");
  }

  private static List<String> keywords(Element lom) {
    return Elements.child(lom, "general").stream()
        .flatMap(g -> Elements.children(g, "keyword").stream())
        .flatMap(k -> Elements.children(k, "string").stream())
        .map(k -> Titles.clean(k.getTextContent()))
        .filter(k -> !k.isEmpty())
        .distinct()
        .limit(100)
        .toList();
  }

  /** What a package asks for before it may be used (Common Cartridge, "Authorization"). */
  private static String asks(Element authorizations) {
    String service =
        Elements.children(authorizations, "authorization").stream()
            .map(a -> Elements.text(a, "webservice"))
            .filter(w -> !w.isEmpty())
            .findFirst()
            .orElse("");
    String code = service.isEmpty() ? "a code from its publisher" : "a code, checked at " + service;
    return authorizations.getAttribute("access").equals("resource")
        ? code + ", for its protected parts"
        : code + ", for the whole cartridge";
  }

  /** Of several languages, the package's own; else the first, which its maker put there. */
  private static String string(Element lom, String language, String part, String name) {
    List<Element> all =
        Elements.at(lom, part, name).stream()
            .flatMap(e -> Elements.children(e).stream())
            .filter(s -> !s.getTextContent().isBlank())
            .toList();
    return all.stream()
        .filter(s -> !language.isEmpty() && alike(s.getAttribute("language"), language))
        .findFirst()
        .or(() -> all.stream().findFirst())
        .map(s -> s.getTextContent().strip())
        .orElse("");
  }

  /** Whether two tags name one language (RFC 5646, the primary subtag). */
  private static boolean alike(String a, String b) {
    return a.strip().split("[-_]")[0].equalsIgnoreCase(b.strip().split("[-_]")[0]);
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
