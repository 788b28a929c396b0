package org.zephyrmist.core.question;

import java.io.StringReader;
import java.io.StringWriter;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import javax.xml.stream.XMLStreamWriter;
import org.w3c.dom.Attr;
import org.w3c.dom.Element;
import org.w3c.dom.NamedNodeMap;
import org.w3c.dom.Node;
import org.w3c.dom.Text;

/** An item's XML as one text: names without namespaces, attributes sorted. */
final class KeptXml {
  private KeptXml() {}

  static String text(Element e) {
    try {
      StringWriter text = new StringWriter();
      XMLStreamWriter out = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(text);
      write(e, out);
      out.flush();
      return text.toString();
    } catch (XMLStreamException x) {
      throw new IllegalStateException("Nothing is written but memory", x);
    }
  }

  private static void write(Element e, XMLStreamWriter out) throws XMLStreamException {
    out.writeStartElement(e.getLocalName());
    for (Map.Entry<String, String> a : attributes(e).entrySet()) {
      out.writeAttribute(a.getKey(), a.getValue());
    }
    for (Node n = e.getFirstChild(); n != null; n = n.getNextSibling()) {
      if (n instanceof Element c) {
        write(c, out);
      } else if (n instanceof Text t && !t.getData().isBlank()) {
        out.writeCharacters(t.getData());
      }
    }
    out.writeEndElement();
  }

  private static Map<String, String> attributes(Element e) {
    Map<String, String> all = new TreeMap<>();
    NamedNodeMap map = e.getAttributes();
    for (int i = 0; i < map.getLength(); i++) {
      Attr a = (Attr) map.item(i);
      if (!a.getName().startsWith("xmlns")) {
        all.put(a.getLocalName() == null ? a.getName() : a.getLocalName(), a.getValue());
      }
    }
    return all;
  }

  /** Writes a kept text again, under whatever namespace stands around it. */
  static void copy(String kept, XMLStreamWriter out) throws XMLStreamException {
    copy(kept, out, UnaryOperator.identity());
  }

  /** The same with the HTML in it replaced. */
  static String map(String kept, UnaryOperator<String> html) {
    try {
      StringWriter text = new StringWriter();
      XMLStreamWriter out = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(text);
      copy(kept, out, html);
      out.flush();
      return text.toString();
    } catch (XMLStreamException x) {
      throw new IllegalStateException("What is kept was written here", x);
    }
  }

  private static void copy(String kept, XMLStreamWriter out, UnaryOperator<String> html)
      throws XMLStreamException {
    XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
    factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
    factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    factory.setProperty(XMLInputFactory.IS_COALESCING, true);
    XMLStreamReader in = factory.createXMLStreamReader(new StringReader(kept));
    boolean text = false;
    while (in.hasNext()) {
      switch (in.next()) {
        case XMLStreamConstants.START_ELEMENT -> {
          out.writeStartElement(in.getLocalName());
          for (int i = 0; i < in.getAttributeCount(); i++) {
            out.writeAttribute(in.getAttributeLocalName(i), in.getAttributeValue(i));
          }
          text = QtiText.isHtml(in.getLocalName(), in.getAttributeValue(null, "texttype"));
        }
        case XMLStreamConstants.END_ELEMENT -> {
          out.writeEndElement();
          text = false;
        }
        case XMLStreamConstants.CHARACTERS ->
            out.writeCharacters(
                text && QtiText.looksLikeHtml(in.getText())
                    ? html.apply(in.getText())
                    : in.getText());
        default -> {}
      }
    }
  }
}
