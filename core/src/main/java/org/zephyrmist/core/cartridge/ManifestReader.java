package org.zephyrmist.core.cartridge;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.xml.sax.Attributes;
import org.xml.sax.SAXException;
import org.xml.sax.helpers.DefaultHandler;
import org.zephyrmist.core.cartridge.Manifest.Node;
import org.zephyrmist.core.cartridge.Manifest.Resource;
import org.zephyrmist.core.xml.Elements;

/**
 * Reads a manifest as a stream: of its XML, only the metadata and one resource at a time become a
 * document in memory.
 */
final class ManifestReader extends DefaultHandler {
  private static final Set<String> NOT_INLINE = Set.of("file", "dependency", "metadata", "variant");
  private static final String XML = "http://www.w3.org/XML/1998/namespace";
  private final String name;
  private final Archive archive;
  private final Limits limits;
  private final Document document;
  private final Map<String, Resource> resources = new LinkedHashMap<>();
  private final List<Node> outline = new ArrayList<>();
  private final Map<String, Integer> identifiers = new HashMap<>();
  private final List<String> doubled = new ArrayList<>();
  private final List<String> missing = new ArrayList<>();
  private final Deque<String> path = new ArrayDeque<>();
  private final Deque<Open> items = new ArrayDeque<>();
  private final StringBuilder text = new StringBuilder();
  private Element root;
  private Element fragment;
  private String base = "";

  /** An item whose end has not come yet. */
  private static final class Open {
    final String id;
    final String resource;
    final boolean visible;
    final List<Node> children = new ArrayList<>();
    String title = "";

    Open(String id, String resource, boolean visible) {
      this.id = id;
      this.resource = resource;
      this.visible = visible;
    }
  }

  /** Carries a refusal through the parser. */
  private static final class Refused extends SAXException {
    final CartridgeException refusal;

    Refused(CartridgeException refusal) {
      super(refusal.getMessage());
      this.refusal = refusal;
    }
  }

  private ManifestReader(String name, Archive archive, Limits limits) {
    this.name = name;
    this.archive = archive;
    this.limits = limits;
    this.document = Xml.document();
  }

  static Manifest read(String name, Archive archive, Limits limits)
      throws CartridgeException, IOException {
    ManifestReader reader = new ManifestReader(name, archive, limits);
    int depth = limits.depth() + 20;
    try (InputStream in = new Atmost(archive.again(name), name, limits.xml())) {
      Xml.stream(depth).parse(in, reader);
    } catch (Refused e) {
      throw e.refusal;
    } catch (Unfit e) {
      throw e;
    } catch (SAXException | IOException e) {
      throw Xml.refusal(name, e, depth);
    }
    return new Manifest(
        ManifestFacts.of(reader.root),
        List.copyOf(reader.outline),
        reader.resources,
        List.copyOf(reader.doubled),
        List.copyOf(reader.missing),
        root(name));
  }

  private static String root(String manifest) {
    return manifest.substring(0, manifest.lastIndexOf('/') + 1);
  }

  @Override
  public void startElement(String uri, String local, String qualified, Attributes a)
      throws SAXException {
    if (fragment != null) {
      fragment = (Element) fragment.appendChild(element(uri, qualified, a));
    } else if (root == null) {
      root = begin(uri, local, qualified, a);
    } else {
      String above = path.peek();
      int depth = path.size();
      if (depth == 1 && (local.equals("metadata") || local.equals("authorizations"))) {
        fragment = (Element) root.appendChild(element(uri, qualified, a));
      } else if (depth == 1 && local.equals("resources")) {
        base += Optional.ofNullable(a.getValue("xml:base")).orElse("");
      } else if (depth == 2 && local.equals("resource") && "resources".equals(above)) {
        fragment = element(uri, qualified, a);
      } else if (local.equals("item") && ("item".equals(above) || "organization".equals(above))) {
        open(a);
      }
      text.setLength(0);
    }
    path.push(local);
  }

  private Element begin(String uri, String local, String qualified, Attributes a) throws Refused {
    if (!local.equals("manifest")) {
      throw new Refused(
          new CartridgeException(
              name,
              "The file is not a manifest: it begins with <" + local + ">.",
              "Choose a Common Cartridge package."));
    }
    base = root(name) + Optional.ofNullable(a.getValue("xml:base")).orElse("");
    return element(uri, qualified, a);
  }

  private Element element(String uri, String qualified, Attributes a) {
    Element e = document.createElementNS(uri.isEmpty() ? null : uri, qualified);
    for (int i = 0; i < a.getLength(); i++) {
      String space = a.getURI(i);
      e.setAttributeNS(space.isEmpty() ? null : space, a.getQName(i), a.getValue(i));
    }
    return e;
  }

  private void open(Attributes a) throws Refused {
    if (items.size() >= limits.depth()) {
      throw new Refused(
          new CartridgeException(
              name,
              "The outline is deeper than " + limits.depth() + " levels.",
              "Flatten the outline, or raise the limit."));
    }
    String id = Optional.ofNullable(a.getValue("identifier")).orElse("").strip();
    int n = identifiers.merge(id, 1, Integer::sum);
    if (n == 2 && !id.isEmpty()) {
      doubled.add(id);
    }
    String ref = Optional.ofNullable(a.getValue("identifierref")).orElse("").strip();
    boolean visible = !"false".equals(a.getValue("isvisible"));
    items.push(new Open(n == 1 && !id.isEmpty() ? id : id + " #" + n, ref, visible));
  }

  @Override
  public void characters(char[] c, int start, int length) {
    if (fragment != null) {
      fragment.appendChild(document.createTextNode(new String(c, start, length)));
    } else {
      text.append(c, start, length);
    }
  }

  @Override
  public void endElement(String uri, String local, String qualified) throws SAXException {
    path.pop();
    if (fragment != null) {
      endOfFragment();
    } else if (local.equals("title") && "item".equals(path.peek()) && !items.isEmpty()) {
      items.peek().title = text.toString();
    } else if (local.equals("item") && !items.isEmpty()) {
      close(items.pop());
    }
  }

  private void endOfFragment() throws Refused {
    Element above = fragment.getParentNode() instanceof Element e ? e : null;
    if (above == null) {
      take(resource(fragment));
    }
    fragment = above == root ? null : above;
  }

  private void close(Open item) {
    Optional<String> ref = item.resource.isEmpty() ? Optional.empty() : Optional.of(item.resource);
    Node node =
        new Node(item.id, item.title.strip(), ref, List.copyOf(item.children), item.visible);
    boolean wrapper = items.isEmpty() && node.title().isEmpty() && ref.isEmpty();
    List<Node> above = items.isEmpty() ? outline : items.peek().children;
    if (wrapper) {
      above.addAll(node.children());
    } else {
      above.add(node);
    }
  }

  private void take(Resource r) throws Refused {
    if (resources.put(r.id(), r) != null) {
      throw new Refused(
          new CartridgeException(
              name,
              "Two resources have the identifier " + r.id() + ".",
              "Ask for a fresh export."));
    }
  }

  private Resource resource(Element r) {
    String own = base + r.getAttributeNS(XML, "base");
    String href = r.getAttribute("href").strip();
    String main = href.isEmpty() ? "" : own + href;
    Optional<String> found = main.isEmpty() ? Optional.empty() : archive.findAddress(main);
    if (!main.isEmpty() && found.isEmpty()) {
      missing.add(main);
    }
    List<String> others = new ArrayList<>(0);
    for (Element f : Elements.children(r, "file")) {
      String address = own + f.getAttribute("href").strip();
      Optional<String> file = archive.findAddress(address);
      if (file.isEmpty() && !address.equals(main)) {
        missing.add(address);
      }
      if (main.isEmpty()) {
        main = address;
        found = file;
      } else if (!file.equals(found)) {
        file.ifPresent(others::add);
      }
    }
    Optional<Element> inline =
        Elements.children(r).stream()
            .filter(c -> !NOT_INLINE.contains(c.getLocalName()))
            .findFirst();
    return new Resource(
        r.getAttribute("identifier").strip(),
        r.getAttribute("type").strip().intern(),
        found,
        List.copyOf(others),
        found.isPresent() ? found.get() : main,
        inline,
        Elements.child(r, "variant").map(v -> v.getAttribute("identifierref").strip()),
        Elements.children(r, "dependency").stream()
            .map(d -> d.getAttribute("identifierref").strip())
            .toList(),
        ManifestFacts.forInstructorsOnly(r),
        r.getAttribute("protected").equals("true"),
        ManifestFacts.standards(r));
  }
}
