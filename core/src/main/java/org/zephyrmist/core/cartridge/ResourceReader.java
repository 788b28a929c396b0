package org.zephyrmist.core.cartridge;

import java.io.IOException;
import java.math.BigDecimal;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.w3c.dom.Element;
import org.zephyrmist.core.cartridge.Manifest.Resource;
import org.zephyrmist.core.content.Addresses;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.References;

/** Turns one resource into content. */
final class ResourceReader {
  /**
   * @param title what the resource calls itself; may be empty
   */
  record Read(String title, Content content) {}

  private final Archive archive;
  private final Limits limits;
  private final PackageFiles files;
  private final Map<String, ItemKey> pageItems;
  private final Set<String> instructorsFiles;
  private final Findings findings;
  private final Xml.Parser xml;
  private final Set<String> used = new HashSet<>();
  private boolean forStudents;

  ResourceReader(
      Archive archive,
      Limits limits,
      PackageFiles files,
      Map<String, ItemKey> pageItems,
      Set<String> instructorsFiles,
      Findings findings) {
    this.instructorsFiles = instructorsFiles;
    this.archive = archive;
    this.limits = limits;
    this.files = files;
    this.pageItems = pageItems;
    this.findings = findings;
    this.xml = new Xml.Parser(limits.depth());
  }

  /** The content; nothing if its file is missing, which is reported. */
  Optional<Read> read(Resource r, String title) throws CartridgeException, IOException {
    forStudents = !r.instructorsOnly();
    Optional<ResourceType> type = ResourceType.of(r.type());
    if (r.path().isEmpty() && r.inline().isEmpty()) {
      findings.dead(
          title.isBlank() ? r.id() : title,
          r.address().isEmpty()
              ? "its resource has no file"
              : "its file " + r.address() + " is missing");
      return Optional.empty();
    }
    if (type.isEmpty()) {
      findings.notUnderstood(title, "resource of type " + r.type() + "; kept as a file");
    }
    r.path().ifPresent(used::add);
    ResourceType known = type.orElse(ResourceType.ASSOCIATED_CONTENT);
    if (known == ResourceType.WEB_CONTENT || known == ResourceType.ASSOCIATED_CONTENT) {
      if (r.path().isEmpty()) {
        return Optional.empty(); // XML in the manifest, which is kept
      }
      String path = r.path().get();
      return Optional.of(Paths.isPage(path) ? page(path) : file(path));
    }
    String name = r.path().orElse("imsmanifest.xml");
    Element root =
        r.inline().isPresent()
            ? r.inline().get()
            : xml.parse(name, archive.bytes(name, limits.xml()));
    return Optional.of(
        switch (known) {
          case DISCUSSION -> discussion(root, name);
          case WEB_LINK -> webLink(root, title);
          case TOOL_LINK -> toolLink(root, name, title);
          case ASSIGNMENT -> assignment(root, name);
          case ASSESSMENT, QUESTION_BANK -> questions(known, root, name, r.path());
          case WEB_CONTENT, ASSOCIATED_CONTENT ->
              throw new IllegalStateException("Read above: " + known);
        });
  }

  private Read page(String path) throws IOException {
    try {
      Html.Body body = Html.body(archive.bytes(path, limits.page()), a -> address(a, path));
      return new Read(body.title(), new Content.Page(body.html()));
    } catch (CartridgeException e) {
      findings.notUnderstood(path, e.getMessage() + " Kept as a file.");
      return file(path);
    }
  }

  private Read file(String path) {
    return new Read(Paths.fileName(path), new Content.File(files.ref(path)));
  }

  /** Paths of files that an item is made of or refers to. */
  Set<String> used() {
    return used;
  }

  private Read discussion(Element xml, String path) {
    return new Read(Xml.text(xml, "title"), new Content.Discussion(text(xml, path, "text")));
  }

  private Read webLink(Element xml, String title) {
    Optional<Element> url = Xml.child(xml, "url");
    String address = url.map(u -> u.getAttribute("href").strip()).orElse("");
    if (!address.isEmpty() && !Addresses.isPlain(address)) {
      findings.dead(title, "the link leads to what is no address of the web and was left out");
      address = "";
    } else if (address.isEmpty()) {
      findings.dead(title, "the link leads nowhere");
    }
    boolean window = url.filter(u -> u.getAttribute("target").equals("_blank")).isPresent();
    return new Read(Xml.text(xml, "title"), new Content.WebLink(address, window));
  }

  /** LTI 1.1 link as in Common Cartridge: launch addresses and custom parameters. */
  private Read toolLink(Element xml, String path, String title) {
    String secure = Xml.text(xml, "secure_launch_url");
    String address = secure.isEmpty() ? Xml.text(xml, "launch_url") : secure;
    if (!Addresses.isWeb(address)) {
      findings.dead(title, "the tool link has no launch address");
      address = "";
    }
    TreeMap<String, String> parameters = new TreeMap<>();
    Xml.child(xml, "custom")
        .ifPresent(
            c ->
                Xml.children(c)
                    .forEach(p -> parameters.put(p.getAttribute("name"), p.getTextContent())));
    return new Read(
        Xml.text(xml, "title"),
        new Content.ToolLink(text(xml, path, "description"), address, parameters));
  }

  private Read assignment(Element xml, String path) {
    String html = text(xml, path, "text");
    Optional<Element> gradable = Xml.child(xml, "gradable");
    Optional<BigDecimal> points =
        gradable
            .filter(g -> !g.getTextContent().strip().equals("false"))
            .flatMap(g -> Grading.number(g.getAttribute("points_possible")));
    return new Read(
        Xml.text(xml, "title"),
        new Content.Assignment(html, points.map(Grading::points).orElse(Grading.NONE)));
  }

  private Read questions(ResourceType type, Element xml, String name, Optional<String> path)
      throws CartridgeException {
    FileRef qti =
        path.map(files::ref)
            .orElseThrow(
                () ->
                    new CartridgeException(
                        name,
                        "Questions stand in the manifest itself.",
                        "Ask for an export with the questions in files of their own."));
    Qti facts = Qti.read(xml);
    Content content =
        type == ResourceType.ASSESSMENT
            ? new Content.Quiz(facts.presentation(), qti, facts.questions(), facts.grading())
            : new Content.QuestionBank(qti, facts.questions());
    return new Read(facts.title(), content);
  }

  private String text(Element xml, String path, String name) {
    Optional<Element> e = Xml.child(xml, name);
    String raw = e.map(x -> x.getTextContent().strip()).orElse("");
    boolean plain = e.filter(x -> x.getAttribute("texttype").equals("text/plain")).isPresent();
    return plain ? new org.jsoup.nodes.Element("p").text(raw).outerHtml() : refer(raw, path);
  }

  /** Addresses become references to files and items of the package. */
  private String refer(String html, String path) {
    return Html.mapAddresses(html, a -> address(a, path));
  }

  private String address(String address, String path) {
    if (References.isOurs(address)) {
      findings.dead(path, "has an address that only Zephyrmist writes; it was left out");
      return References.NOWHERE;
    }
    if (address.length() > Addresses.MOST && !address.startsWith("data:")) {
      findings.dead(path, "has an address of more than 2,000 characters; it was left out");
      return References.NOWHERE;
    }
    Optional<String> target = Paths.resolve(address, path);
    if (target.isEmpty()) {
      return address;
    }
    Optional<String> found =
        archive
            .findAddress(target.get())
            .or(() -> archive.findAddress("web_resources/" + target.get()));
    if (found.isEmpty()) {
      findings.dead(path, "refers to " + target.get() + ", which is not in the package");
      return address;
    }
    used.add(found.get());
    String fragment = References.fragment(address);
    ItemKey item = pageItems.get(found.get());
    boolean withheld = forStudents && instructorsFiles.contains(found.get());
    if (item != null && (withheld || !Paths.mediaType(found.get()).startsWith("image/"))) {
      return References.item(item, fragment);
    }
    if (withheld) {
      findings.dead(path, "refers to " + found.get() + ", which is only for instructors");
      return address;
    }
    FileRef file = files.ref(found.get());
    return References.file(file.sha256(), file.name(), fragment);
  }
}
