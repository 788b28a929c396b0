package org.zephyrmist.core.xml;

import java.io.OutputStream;
import java.util.regex.Pattern;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/** Writes XML by qualified names; calls can be chained. */
public final class XmlOut {
  /** What no XML 1.0 document may hold (section 2.2). */
  private static final Pattern NO_CHARACTER =
      Pattern.compile(
          "[^\\x{9}\\x{A}\\x{D}\\x{20}-\\x{D7FF}\\x{E000}-\\x{FFFD}\\x{10000}-\\x{10FFFF}]");

  private final XMLStreamWriter out;

  public XmlOut(OutputStream stream) throws XMLStreamException {
    out = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(stream, "UTF-8");
    out.writeStartDocument("UTF-8", "1.0");
  }

  /** Something that is written by other means. */
  public interface Part {
    void to(XMLStreamWriter out) throws XMLStreamException;
  }

  /** Opens an element with attributes given as name, value, name, value. */
  public XmlOut open(String name, String... attributes) throws XMLStreamException {
    out.writeStartElement(name);
    for (int i = 0; i < attributes.length; i += 2) {
      out.writeAttribute(attributes[i], clean(attributes[i + 1]));
    }
    return this;
  }

  public XmlOut close() throws XMLStreamException {
    out.writeEndElement();
    return this;
  }

  /** An element without content. */
  public XmlOut empty(String name, String... attributes) throws XMLStreamException {
    return open(name, attributes).close();
  }

  public XmlOut text(String name, String text, String... attributes) throws XMLStreamException {
    open(name, attributes);
    out.writeCharacters(clean(text));
    return close();
  }

  /** The same, unless the text is empty. */
  public XmlOut some(String name, String text, String... attributes) throws XMLStreamException {
    return text.isEmpty() ? this : text(name, text, attributes);
  }

  public XmlOut part(Part part) throws XMLStreamException {
    part.to(out);
    return this;
  }

  public void end() throws XMLStreamException {
    out.writeEndDocument();
    out.flush();
  }

  private static String clean(String text) {
    return NO_CHARACTER.matcher(text).replaceAll("");
  }
}
