package org.zephyrmist.core.cartridge;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jsoup.nodes.Entities;
import org.w3c.dom.Element;
import org.zephyrmist.core.cartridge.Manifest.Resource;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.xml.Elements;

/** Turns one resource into content. */
final class ResourceReader {
  /**
   * @param title what the resource calls itself; may be empty
   * @param instructors what comes with it and is for instructors only; may be empty
   */
  record Read(String title, Content content, String instructors) {
    Read(String title, Content content) {
      this(title, content, "");
    }
  }

  private final Archive archive;
  private final Limits limits;
  private final PackageFiles files;
  private final PackageAddresses addresses;
  private final Findings findings;
  private final Xml.Parser xml;
  private final PageReader pages;
  private final LinkReader links;
  private final TaskReader tasks;

  ResourceReader(
      Archive archive,
      Limits limits,
      PackageFiles files,
      PackageAddresses addresses,
      Findings findings) {
    this.archive = archive;
    this.limits = limits;
    this.files = files;
    this.addresses = addresses;
    this.findings = findings;
    this.xml = new Xml.Parser(limits.depth());
    this.pages = new PageReader(archive, limits, files, addresses, findings);
    this.links = new LinkReader(findings);
    this.tasks = new TaskReader(files, addresses, findings);
  }

  /**
   * The content; nothing if its file is missing or torn, which is reported.
   *
   * @throws CartridgeException if something breaks the whole package
   */
  Optional<Read> read(Resource r, String title) throws CartridgeException, IOException {
    addresses.begin(!r.instructorsOnly());
    String name = title.isBlank() ? r.id() : title;
    if (r.path().isEmpty() && r.inline().isEmpty()) {
      findings.dead(
          name,
          r.address().isEmpty()
              ? "its resource has no file"
              : "its file " + r.address() + " is missing");
      return Optional.empty();
    }
    Optional<ResourceType> type = ResourceType.of(r.type());
    if (type.isEmpty()) {
      findings.notUnderstood(name, "resource of type " + r.type() + "; kept as a file");
    }
    r.path().ifPresent(addresses.used()::add);
    ResourceType known = type.orElse(ResourceType.ASSOCIATED_CONTENT);
    if (known.isFiles()) {
      return r.path().map(path -> pages.read(path, type, name)); // XML in the manifest is kept
    }
    try {
      return Optional.of(xml(known, r, name));
    } catch (CartridgeException e) {
      if (!e.isTorn() || r.path().isEmpty()) {
        throw e;
      }
      findings.notUnderstood(
          name,
          e.place() + ": " + e.getMessage() + " It was kept as a file; the rest was taken in.");
      return Optional.of(pages.file(r.path().get()));
    }
  }

  private Read xml(ResourceType type, Resource r, String title)
      throws CartridgeException, IOException {
    String name = r.path().orElse("imsmanifest.xml");
    Element root =
        r.inline().isPresent()
            ? r.inline().get()
            : xml.parse(name, archive.bytes(name, limits.xml()));
    return switch (type) {
      case DISCUSSION -> discussion(root, name);
      case WEB_LINK -> links.webLink(root, title);
      case TOOL_LINK -> links.toolLink(root, title, html(root, name, "description"));
      case ASSIGNMENT -> assignment(root, name, title);
      case ASSESSMENT, QUESTION_BANK -> tasks.questions(type, root, name, r, title);
      case WEB_CONTENT, ASSOCIATED_CONTENT ->
          throw new IllegalStateException("Read above: " + type);
    };
  }

  private Read discussion(Element xml, String path) {
    String html = html(xml, path, "text");
    return new Read(
        Elements.text(xml, "title"), new Content.Discussion(html, attached(xml, path, false)));
  }

  private Read assignment(Element xml, String path, String title) {
    String html = html(xml, path, "text") + html(xml, path, "rubric");
    Content.Assignment content =
        new Content.Assignment(html, tasks.grading(xml, title), attached(xml, path, false));
    StringBuilder instructors = new StringBuilder(html(xml, path, "instructor_text"));
    for (FileRef f : attached(xml, path, true)) {
      instructors
          .append("<p><a href=\"")
          .append(Entities.escape(References.file(f.sha256(), f.name(), "")))
          .append("\">")
          .append(Entities.escape(f.name()))
          .append("</a></p>");
    }
    return new Read(Elements.text(xml, "title"), content, instructors.toString());
  }

  /**
   * Attachments (assignment extension, "role": Learner, Instructor, All, AllRolesExceptLearner).
   *
   * @param instructors those that are not for learners, or those that are
   */
  private List<FileRef> attached(Element xml, String path, boolean instructors) {
    List<FileRef> all = new ArrayList<>();
    for (Element list : Elements.children(xml, "attachments")) {
      for (Element a : Elements.children(list, "attachment")) {
        String role = a.getAttribute("role").strip();
        boolean learners =
            role.isEmpty() || role.equalsIgnoreCase("All") || role.equalsIgnoreCase("Learner");
        if (learners != instructors) {
          addresses.file(a.getAttribute("href").strip(), path).ifPresent(all::add);
        }
      }
    }
    return all.stream().distinct().toList();
  }

  private String html(Element xml, String path, String name) {
    Optional<Element> e = Elements.child(xml, name);
    String raw = e.map(x -> x.getTextContent().strip()).orElse("");
    boolean plain = e.filter(x -> x.getAttribute("texttype").equals("text/plain")).isPresent();
    String html = plain ? new org.jsoup.nodes.Element("p").text(raw).outerHtml() : raw;
    pages.tell(html, path);
    return addresses.refer(html, path);
  }
}
