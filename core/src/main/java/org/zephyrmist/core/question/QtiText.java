package org.zephyrmist.core.question;

import java.util.List;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import org.jsoup.nodes.Entities;
import org.w3c.dom.Element;
import org.zephyrmist.core.xml.Elements;

/** Material of QTI 1.2 as HTML. */
final class QtiText {
  private static final Pattern TAG = Pattern.compile("</?[A-Za-z][^<>]*>|&(#\\d+|\\w+);");
  private final UnaryOperator<String> refer;

  /**
   * @param refer turns the addresses in a text into references
   */
  QtiText(UnaryOperator<String> refer) {
    this.refer = refer;
  }

  /** All material below an element, but not what stands below any of these. */
  String html(Element e, List<String> notBelow) {
    StringBuilder all = new StringBuilder();
    collect(e, notBelow, all);
    return refer.apply(all.toString().strip());
  }

  private void collect(Element e, List<String> notBelow, StringBuilder all) {
    for (Element c : Elements.children(e)) {
      String name = c.getLocalName();
      switch (name) {
        case "mattext", "matemtext" -> all.append(text(c));
        case "matimage" -> all.append("<img src=\"").append(uri(c)).append("\" alt=\"\">");
        case "mataudio" ->
            all.append("<audio controls src=\"").append(uri(c)).append("\"></audio>");
        case "matvideo" ->
            all.append("<video controls src=\"").append(uri(c)).append("\"></video>");
        case "matbreak" -> all.append("<br>");
        default -> {
          if (!notBelow.contains(name)) {
            collect(c, notBelow, all);
          }
        }
      }
    }
  }

  private static String uri(Element e) {
    return Entities.escape(e.getAttribute("uri").strip());
  }

  /** A text is plain unless it says HTML (QTI 1.2, mattext), or is plainly written as HTML. */
  private static String text(Element e) {
    String raw = e.getTextContent().strip();
    String type = e.getAttribute("texttype");
    boolean html = type.equals("text/html") || type.isEmpty() && TAG.matcher(raw).find();
    return html ? raw : Entities.escape(raw);
  }

  /** Whether an element may hold HTML. */
  static boolean isHtml(String element, String textType) {
    return (element.equals("mattext") || element.equals("matemtext"))
        && (textType == null || textType.isEmpty() || textType.equals("text/html"));
  }

  static boolean looksLikeHtml(String text) {
    return TAG.matcher(text).find();
  }

  /** An item as it came, its addresses turned into references. */
  String kept(Element item) {
    return KeptXml.map(KeptXml.text(item), refer);
  }
}
