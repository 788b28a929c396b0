package org.zephyrmist.core.cartridge;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import javax.xml.stream.XMLStreamException;
import org.jsoup.nodes.Entities;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;

/** How each kind of item is written as a resource (Common Cartridge 1.3, section 4). */
final class ResourceWriter {
  private static final String CC = "http://www.imsglobal.org/xsd/imsccv1p3/";
  private final UnaryOperator<String> refer;

  /**
   * @param refer turns the references in a text into addresses within the package
   */
  ResourceWriter(UnaryOperator<String> refer) {
    this.refer = refer;
  }

  /** The type of its resource; none for modules, and for kinds that the standard does not have. */
  static Optional<String> type(Kind kind) {
    return switch (kind) {
      case PAGE, FILE -> Optional.of("webcontent");
      case DISCUSSION -> Optional.of("imsdt_xmlv1p3");
      case WEB_LINK -> Optional.of("imswl_xmlv1p3");
      case TOOL_LINK -> Optional.of("imsbasiclti_xmlv1p3");
      case ASSIGNMENT -> Optional.of("assignment_xmlv1p0");
      case QUIZ -> Optional.of("imsqti_xmlv1p2/imscc_xmlv1p3/assessment");
      case QUESTION_BANK -> Optional.of("imsqti_xmlv1p2/imscc_xmlv1p3/question-bank");
      case MODULE, RUBRIC, OUTCOME, GRADE_CATEGORY, ANNOUNCEMENT, GROUP_SET -> Optional.empty();
    };
  }

  /** Where its own file stands; none for what is written as the file it is made of. */
  static Optional<String> path(Item item) {
    if (item.content().madeOf().isPresent()) {
      return Optional.empty();
    }
    return Optional.of(
        item.kind() == Kind.PAGE
            ? "web_resources/" + item.key() + ".html"
            : "i/" + item.key() + ".xml");
  }

  /** Writes the file of an item that has one of its own. */
  void write(Item item, OutputStream out) throws IOException, XMLStreamException {
    if (item.kind() == Kind.PAGE) {
      out.write(page(item).getBytes(StandardCharsets.UTF_8));
      return;
    }
    XmlOut x = new XmlOut(out);
    Aspects a = Aspects.of(item);
    String html = refer.apply(a.wording().html());
    switch (item.kind()) {
      case DISCUSSION -> {
        x.open("topic", "xmlns", CC + "imsdt_v1p3");
        x.text("title", item.title()).html("text", html);
      }
      case WEB_LINK -> {
        x.open("webLink", "xmlns", CC + "imswl_v1p3").text("title", item.title());
        String target = a.launch().newWindow() ? "_blank" : "_self";
        x.open("url", "href", a.launch().address(), "target", target).close();
      }
      case TOOL_LINK -> tool(x, item.title(), html, a);
      case ASSIGNMENT -> {
        String extension = "http://www.imsglobal.org/xsd/imscc_extensions/assignment";
        x.open("assignment", "xmlns", extension, "identifier", item.key().value());
        x.text("title", item.title()).html("text", html);
        if (a.grading().points().isPresent()) {
          x.open("gradable", "points_possible", a.grading().points().get().toPlainString());
          x.close();
        }
      }
      default -> throw new IllegalArgumentException("Has no file of its own: " + item.kind());
    }
    x.close().end();
  }

  private String page(Item item) {
    return "<!DOCTYPE html><html><head><meta charset=\"utf-8\"><title>"
        + Entities.escape(item.title())
        + "</title></head><body>"
        + refer.apply(item.content().html())
        + "</body></html>";
  }

  /** LTI 1.1 link as Common Cartridge has it. */
  private static void tool(XmlOut x, String title, String html, Aspects a)
      throws XMLStreamException {
    x.open(
        "cartridge_basiclti_link",
        "xmlns",
        "http://www.imsglobal.org/xsd/imslticc_v1p3",
        "xmlns:blti",
        "http://www.imsglobal.org/xsd/imsbasiclti_v1p0",
        "xmlns:lticm",
        "http://www.imsglobal.org/xsd/imslticm_v1p0");
    x.text("blti:title", title).text("blti:description", html).open("blti:custom");
    for (Map.Entry<String, String> e : a.launch().parameters().entrySet()) {
      x.property("lticm:property", e.getKey(), e.getValue());
    }
    x.close().text("blti:secure_launch_url", a.launch().address());
  }
}
