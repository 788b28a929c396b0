package org.zephyrmist.core.cartridge;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilder;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.ErrorHandler;
import org.xml.sax.SAXException;
import org.xml.sax.SAXParseException;

/** XML without document types or external entities, read by local names. */
final class Xml {
  private Xml() {}

  static Element parse(String name, byte[] bytes) throws CartridgeException {
    try {
      Document doc = builder().parse(new ByteArrayInputStream(bytes));
      return doc.getDocumentElement();
    } catch (SAXParseException e) {
      boolean dtd = e.getMessage().contains("DOCTYPE");
      throw new CartridgeException(
          name + ", line " + e.getLineNumber() + ", column " + e.getColumnNumber(),
          dtd
              ? "The file declares a document type, which may pull in outside files."
              : "The XML is malformed: " + e.getMessage(),
          dtd
              ? "Remove the DOCTYPE line, or ask for a clean export."
              : "Ask for a fresh export; this file was damaged or edited by hand.");
    } catch (SAXException | IOException e) {
      throw new CartridgeException(
          name, "The XML cannot be read: " + e.getMessage(), "Ask for a fresh export.");
    }
  }

  private static DocumentBuilder builder() {
    try {
      DocumentBuilderFactory f = DocumentBuilderFactory.newInstance();
      f.setNamespaceAware(true);
      f.setXIncludeAware(false);
      f.setExpandEntityReferences(false);
      f.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
      f.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
      f.setAttribute(XMLConstants.ACCESS_EXTERNAL_DTD, "");
      f.setAttribute(XMLConstants.ACCESS_EXTERNAL_SCHEMA, "");
      DocumentBuilder b = f.newDocumentBuilder();
      b.setErrorHandler(new Strict());
      return b;
    } catch (ParserConfigurationException e) {
      throw new IllegalStateException("The JDK's parser knows these features", e);
    }
  }

  static List<Element> children(Element e) {
    List<Element> all = new ArrayList<>();
    for (Node n = e.getFirstChild(); n != null; n = n.getNextSibling()) {
      if (n instanceof Element c) {
        all.add(c);
      }
    }
    return all;
  }

  static List<Element> children(Element e, String name) {
    return children(e).stream().filter(c -> c.getLocalName().equals(name)).toList();
  }

  static Optional<Element> child(Element e, String name) {
    return children(e, name).stream().findFirst();
  }

  /** Down a path of local names. */
  static Optional<Element> at(Element e, String... path) {
    Optional<Element> here = Optional.of(e);
    for (String name : path) {
      here = here.flatMap(h -> child(h, name));
    }
    return here;
  }

  /** Text at a path, stripped; empty if there is none. */
  static String text(Element e, String... path) {
    return at(e, path).map(x -> x.getTextContent().strip()).orElse("");
  }

  private static final class Strict implements ErrorHandler {
    @Override
    public void warning(SAXParseException e) {}

    @Override
    public void error(SAXParseException e) throws SAXException {
      throw e;
    }

    @Override
    public void fatalError(SAXParseException e) throws SAXException {
      throw e;
    }
  }
}
