package org.zephyrmist.core.cartridge;

import java.io.OutputStream;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/** Writes XML by qualified names; calls can be chained. */
final class XmlOut {
  private final XMLStreamWriter out;

  XmlOut(OutputStream stream) throws XMLStreamException {
    out = XMLOutputFactory.newDefaultFactory().createXMLStreamWriter(stream, "UTF-8");
    out.writeStartDocument("UTF-8", "1.0");
  }

  /** Opens an element with attributes given as name, value, name, value. */
  XmlOut open(String name, String... attributes) throws XMLStreamException {
    out.writeStartElement(name);
    for (int i = 0; i < attributes.length; i += 2) {
      out.writeAttribute(attributes[i], attributes[i + 1]);
    }
    return this;
  }

  XmlOut close() throws XMLStreamException {
    out.writeEndElement();
    return this;
  }

  XmlOut text(String name, String text) throws XMLStreamException {
    open(name);
    out.writeCharacters(text);
    return close();
  }

  XmlOut html(String name, String html) throws XMLStreamException {
    open(name, "texttype", "text/html");
    out.writeCharacters(html);
    return close();
  }

  XmlOut property(String name, String key, String value) throws XMLStreamException {
    open(name, "name", key);
    out.writeCharacters(value);
    return close();
  }

  void end() throws XMLStreamException {
    out.writeEndDocument();
    out.flush();
  }
}
