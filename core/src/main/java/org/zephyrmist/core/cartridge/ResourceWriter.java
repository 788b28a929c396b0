package org.zephyrmist.core.cartridge;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import javax.xml.stream.XMLStreamException;
import org.jsoup.nodes.Entities;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.core.content.HandIn;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Launch;
import org.zephyrmist.core.xml.XmlOut;

/** How each kind of item is written as a resource (Common Cartridge, section 4). */
final class ResourceWriter {
  private static final String XSD = "http://www.imsglobal.org/xsd/";
  private final PackageChoices choices;
  private final PackageFormat format;
  private final UnaryOperator<String> refer;
  private final PackagePaths paths;

  /**
   * @param refer turns the references in a text into addresses within the package
   */
  ResourceWriter(PackageChoices choices, UnaryOperator<String> refer, PackagePaths paths) {
    this.choices = choices;
    this.format = choices.format();
    this.refer = refer;
    this.paths = paths;
  }

  /** Writes the file of an item that is neither a file itself nor made of questions. */
  void write(Item item, OutputStream out) throws IOException, XMLStreamException {
    Aspects a = Aspects.of(item);
    String html = refer.apply(a.wording().html());
    List<FileRef> attached = a.wording().attached();
    switch (item.kind()) {
      case PAGE -> page(out, item.title(), html, List.of());
      case DISCUSSION -> topic(new XmlOut(out), item.title(), html, attached);
      case WEB_LINK -> {
        XmlOut x = new XmlOut(out);
        x.open("webLink", "xmlns", format.name(XSD + "imsccv1p*/imswl_v1p*"));
        String target = a.launch().newWindow() ? "_blank" : "_self";
        x.text("title", item.title());
        x.empty("url", "href", a.launch().address(), "target", target).close().end();
      }
      case TOOL_LINK -> tool(new XmlOut(out), item.title(), html, a.launch());
      case ASSIGNMENT -> {
        if (format.assignments()) {
          assignment(new XmlOut(out), item, html, a);
        } else {
          page(out, item.title(), html, attached);
        }
      }
      default -> throw new IllegalArgumentException("Has no file of its own: " + item.kind());
    }
  }

  private void page(OutputStream out, String title, String html, List<FileRef> attached)
      throws IOException {
    StringBuilder page = new StringBuilder();
    page.append("<!DOCTYPE html><html><head><meta charset=\"utf-8\"><title>")
        .append(Entities.escape(title))
        .append("</title></head><body>")
        .append(html);
    for (FileRef f : attached) {
      page.append("<p><a href=\"")
          .append(Entities.escape(paths.address(f.sha256(), f.name(), "")))
          .append("\">")
          .append(Entities.escape(f.name()))
          .append("</a></p>");
    }
    out.write(page.append("</body></html>").toString().getBytes(StandardCharsets.UTF_8));
  }

  private void topic(XmlOut x, String title, String html, List<FileRef> attached)
      throws XMLStreamException {
    x.open("topic", "xmlns", format.name(XSD + "imsccv1p*/imsdt_v1p*"));
    x.text("title", title).text("text", html, "texttype", "text/html");
    attachments(x, attached, false);
    x.close().end();
  }

  private void attachments(XmlOut x, List<FileRef> attached, boolean roles)
      throws XMLStreamException {
    if (attached.isEmpty()) {
      return;
    }
    x.open("attachments");
    for (FileRef f : attached) {
      String href = "../" + PackagePaths.href(paths.file(f.sha256(), f.name()));
      if (roles) {
        x.empty("attachment", "href", href, "role", "All");
      } else {
        x.empty("attachment", "href", href);
      }
    }
    x.close();
  }

  private void assignment(XmlOut x, Item item, String html, Aspects a) throws XMLStreamException {
    String extension = XSD + "imscc_extensions/assignment";
    String id = PackagePaths.identifier("a_", item.key().value());
    x.open("assignment", "xmlns", extension, "identifier", id).text("title", item.title());
    x.text("text", html, "texttype", "text/html");
    attachments(x, a.wording().attached(), true);
    if (choices.grading() && a.grading().points().isPresent()) {
      String points = a.grading().points().get().toPlainString();
      x.text("gradable", "true", "points_possible", points);
    }
    Optional<HandIn> handIn = a.grading().handIn();
    if (choices.grading() && handIn.isPresent() && !handIn.get().ways().isEmpty()) {
      x.open("submission_formats");
      for (String way : handIn.get().ways()) {
        x.empty("format", "type", way);
      }
      x.close();
    }
    x.close().end();
  }

  /** LTI 1.1 link; the standard wants a plain address and a vendor whatever is known of them. */
  private void tool(XmlOut x, String title, String html, Launch launch) throws XMLStreamException {
    Launch.Tool tool = launch.tool().orElse(new Launch.Tool("", "", "", ""));
    String address = launch.address();
    boolean secure = address.regionMatches(true, 0, "https:", 0, 6);
    x.open(
        "cartridge_basiclti_link",
        "xmlns",
        format.toolSpace(),
        "xmlns:blti",
        XSD + "imsbasiclti_v1p0",
        "xmlns:lticm",
        XSD + "imslticm_v1p0",
        "xmlns:lticp",
        XSD + "imslticp_v1p0");
    x.text("blti:title", title).text("blti:description", html);
    if (choices.parameters() && !launch.parameters().isEmpty()) {
      x.open("blti:custom");
      for (Map.Entry<String, String> e : launch.parameters().entrySet()) {
        x.text("lticm:property", e.getValue(), "name", e.getKey());
      }
      x.close();
    }
    x.text("blti:launch_url", tool.plain().isEmpty() ? address : tool.plain());
    if (secure) {
      x.text("blti:secure_launch_url", address);
    }
    x.some("blti:icon", tool.icon());
    String host = Frames.host(address).isEmpty() ? "tool" : Frames.host(address);
    x.open("blti:vendor");
    x.text("lticp:code", tool.vendor().isEmpty() ? host : tool.vendor());
    x.text("lticp:name", tool.vendorName().isEmpty() ? host : tool.vendorName());
    x.close().close().end();
  }
}
