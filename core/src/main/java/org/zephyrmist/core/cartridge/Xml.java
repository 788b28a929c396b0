package org.zephyrmist.core.cartridge;

import java.io.ByteArrayInputStream;
import java.io.CharConversionException;
import java.io.IOException;
import java.io.UnsupportedEncodingException;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilder;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import javax.xml.parsers.SAXParser;
import javax.xml.parsers.SAXParserFactory;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.xml.sax.ErrorHandler;
import org.xml.sax.SAXException;
import org.xml.sax.SAXParseException;

/** XML without document types or external entities, read by local names. */
final class Xml {
  private static final String NO_DOCTYPE = "http://apache.org/xml/features/disallow-doctype-decl";
  private static final String DEPTH = "jdk.xml.maxElementDepth";

  private Xml() {}

  /** Parses one file after the other; not for several threads. */
  static final class Parser {
    private final int depth;
    private final DocumentBuilder builder;

    Parser(int depth) {
      this.depth = depth;
      this.builder = builder(depth);
    }

    Element parse(String name, byte[] bytes) throws CartridgeException {
      try {
        return builder.parse(new ByteArrayInputStream(bytes)).getDocumentElement();
      } catch (SAXException | IOException e) {
        throw refusal(name, e, depth);
      }
    }
  }

  /** What is wrong with an XML file, where, and what to do. */
  static CartridgeException refusal(String name, Exception e, int depth) {
    String place =
        e instanceof SAXParseException p
            ? name + ", line " + p.getLineNumber() + ", column " + p.getColumnNumber()
            : name;
    String message = String.valueOf(e.getMessage());
    if (message.contains("DOCTYPE")) {
      return new CartridgeException(
          place,
          "The file declares a document type, which may pull in outside files.",
          "Remove the DOCTYPE line, or ask for a clean export.");
    }
    if (message.contains("JAXP00010006")) {
      return new CartridgeException(
          place,
          "The XML is nested deeper than " + depth + " levels.",
          "Flatten it, or raise the limit.");
    }
    if (e instanceof CharConversionException
        || e instanceof UnsupportedEncodingException
        || message.contains("Invalid byte")) {
      return CartridgeException.torn(
          place,
          "The encoding that the file declares is unknown, or its bytes do not fit it: " + message,
          "Save the file in the encoding that its first line names, or ask for a fresh export.");
    }
    return CartridgeException.torn(
        place,
        "The XML is malformed: " + message,
        "Ask for a fresh export; this file was damaged or edited by hand.");
  }

  private static DocumentBuilder builder(int depth) {
    try {
      DocumentBuilderFactory f = DocumentBuilderFactory.newDefaultNSInstance();
      f.setXIncludeAware(false);
      f.setExpandEntityReferences(false);
      f.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
      f.setFeature(NO_DOCTYPE, true);
      f.setAttribute(DEPTH, String.valueOf(depth));
      f.setAttribute(XMLConstants.ACCESS_EXTERNAL_DTD, "");
      f.setAttribute(XMLConstants.ACCESS_EXTERNAL_SCHEMA, "");
      DocumentBuilder b = f.newDocumentBuilder();
      b.setErrorHandler(new Strict());
      return b;
    } catch (ParserConfigurationException e) {
      throw new IllegalStateException("The JDK's parser knows these features", e);
    }
  }

  /** An empty document, to make elements with. */
  static Document document() {
    return builder(0).newDocument();
  }

  /** A parser for files that are not to be in memory as a whole. */
  static SAXParser stream(int depth) {
    try {
      SAXParserFactory f = SAXParserFactory.newDefaultNSInstance();
      f.setXIncludeAware(false);
      f.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
      f.setFeature(NO_DOCTYPE, true);
      SAXParser p = f.newSAXParser();
      p.setProperty(DEPTH, String.valueOf(depth));
      p.setProperty(XMLConstants.ACCESS_EXTERNAL_DTD, "");
      return p;
    } catch (ParserConfigurationException | SAXException e) {
      throw new IllegalStateException("The JDK's parser knows these features", e);
    }
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
