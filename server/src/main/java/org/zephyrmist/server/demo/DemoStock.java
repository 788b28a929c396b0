package org.zephyrmist.server.demo;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** Packages as a publisher and a colleague send them: not as we would write them. */
final class DemoStock {
  private static final String TYPE = "imsqti_xmlv1p2/imscc_xmlv1p2/";
  private static final List<String> FACTS =
      List.of(
          "Nobody walks under a moving bar.",
          "The iron opens before the house does.",
          "A harness is looked over before each use.",
          "Only one person calls a fly cue.");

  private final Map<String, byte[]> files = new LinkedHashMap<>();
  private final StringBuilder items = new StringBuilder();
  private final StringBuilder resources = new StringBuilder();

  private DemoStock() {}

  /** Asks for a code, holds banks, a film, a map, and much that is only for instructors. */
  static byte[] licensed() {
    DemoStock s = new DemoStock();
    s.module("start", "How to use this stock");
    s.page("welcome", "Welcome", "", "<p>Everything here was tried on three stages.</p>");
    s.page(
        "film",
        "Film: the fly floor",
        "",
        "<p>Watch it before the first call.</p><iframe title=\"The fly floor\""
            + " src=\"https://film.callboard.example/fly-floor\" width=\"560\""
            + " height=\"315\"></iframe><p>Then find your places on the <a"
            + " href=\"map.html\">map</a>.</p>");
    s.page(
        "map",
        "Map of the fly floor",
        "",
        "<p>Seen from prompt side.</p><iframe src=\"https://maps.greenroom.example/fly\">"
            + "</iframe><p><img src=\"plan.png\" alt=\"Plan\"></p>");
    s.files.put("plan.png", Pictures.png(7));
    s.end();
    s.module("units", "Units");
    for (int i = 0; i < FACTS.size(); i++) {
      s.page(
          "unit" + i,
          "Unit " + (i + 1) + ": " + FACTS.get(i).toLowerCase().replace(".", ""),
          "protected=\"true\"",
          "<p>" + FACTS.get(i) + "</p><p>Say why, in the words of your own stage.</p>");
      s.questions("check" + i, "Check " + (i + 1), "assessment", i);
    }
    s.end();
    s.module("stock", "For instructors");
    s.instructors("key", "Answer key", "<p>All four rules are right as they stand.</p>");
    s.instructors("notes", "Notes on teaching", "<p>Ten minutes on the floor, not in a room.</p>");
    s.end();
    s.resource("bank", TYPE + "question-bank", "bank.xml", "");
    s.files.put(
        "bank.xml", DemoQuestions.qti("safety-bank", true, DemoQuestions.of("bank", week())));
    return s.zip(
        "Backstage Safety: the whole stock",
        "<authorizations access=\"resource\" import=\"false\"><authorization><cartridgeId>cb-77"
            + "</cartridgeId><webservice>https://codes.callboard.example</webservice></authorization>"
            + "</authorizations>");
  }

  /** A colleague's folder, packed as it lay there. */
  static byte[] loose() {
    DemoStock s = new DemoStock();
    s.put(
        "Rigging notes/Week 1/Before you climb.html",
        page("Before you climb", "<p>Shoes, harness, a second person.</p>"));
    s.put(
        "Rigging notes/Week 1/Knots.html",
        page("Knots", "<p>Three are enough: <a href=\"../knots.pdf\">the sheet</a>.</p>"));
    s.files.put(
        "Rigging notes/knots.pdf",
        Pictures.pdf("Knots", List.of("Bowline", "Clove hitch", "Cow hitch")));
    s.put("Rigging notes/backup.json", "{}");
    return s.packed();
  }

  private static DemoCourse.Week week() {
    return new DemoCourse.Week("Safety", FACTS, "", "What would you have done first?");
  }

  private static String page(String title, String html) {
    return "<!DOCTYPE html><html><head><meta charset=\"utf-8\"><title>"
        + title
        + "</title></head><body>"
        + html
        + "</body></html>";
  }

  private void put(String name, String text) {
    files.put(name, text.getBytes(StandardCharsets.UTF_8));
  }

  private void module(String id, String title) {
    items
        .append("<item identifier=\"m_")
        .append(id)
        .append("\"><title>")
        .append(title)
        .append("</title>");
  }

  private void end() {
    items.append("</item>");
  }

  private void item(String id, String title) {
    items.append("<item identifier=\"i_").append(id).append("\" identifierref=\"r_").append(id);
    items.append("\"><title>").append(title).append("</title></item>");
  }

  private void resource(String id, String type, String href, String more) {
    resources.append("<resource identifier=\"r_").append(id).append("\" type=\"").append(type);
    resources.append("\" href=\"").append(href).append("\" ").append(more).append("><file href=\"");
    resources.append(href).append("\"/></resource>");
  }

  private void page(String id, String title, String attributes, String html) {
    item(id, title);
    resource(id, "webcontent", id + ".html", attributes);
    put(id + ".html", page(title, html));
  }

  private void questions(String id, String title, String type, int n) {
    item(id, title);
    resource(id, TYPE + type, id + ".xml", "");
    DemoCourse.Week one =
        new DemoCourse.Week("Safety", List.of(FACTS.get(n)), "", "What would you have done first?");
    files.put(id + ".xml", DemoQuestions.qti("questions", false, DemoQuestions.of(id, one)));
  }

  private void instructors(String id, String title, String html) {
    item(id, title);
    resources
        .append("<resource identifier=\"r_")
        .append(id)
        .append("\" type=\"webcontent\" href=\"");
    resources
        .append(id)
        .append(".html\"><metadata><lom:lom><lom:educational><lom:intendedEndUserRole>");
    resources.append(
        "<lom:value>Instructor</lom:value></lom:intendedEndUserRole></lom:educational></lom:lom>");
    resources.append("</metadata><file href=\"").append(id).append(".html\"/></resource>");
    put(id + ".html", page(title, html));
  }

  private byte[] zip(String title, String authorizations) {
    put(
        "imsmanifest.xml",
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?><manifest identifier=\"callboard-safety-stock\""
            + " xmlns=\"http://www.imsglobal.org/xsd/imsccv1p2/imscp_v1p1\""
            + " xmlns:lom=\"http://ltsc.ieee.org/xsd/imsccv1p2/LOM/resource\"><metadata><schema>IMS"
            + " Common Cartridge</schema><schemaversion>1.2.0</schemaversion><lom:lom><lom:general>"
            + "<lom:title><lom:string language=\"en\">"
            + title
            + "</lom:string></lom:title><lom:language>en</lom:language></lom:general><lom:lifeCycle>"
            + "<lom:contribute><lom:role><lom:value>publisher</lom:value></lom:role><lom:entity>"
            + "BEGIN:VCARD\nVERSION:3.0\nFN:Callboard Press\nEND:VCARD</lom:entity></lom:contribute>"
            + "</lom:lifeCycle><lom:rights><lom:description><lom:string>All rights with Callboard"
            + " Press.</lom:string></lom:description></lom:rights></lom:lom></metadata><organizations>"
            + "<organization identifier=\"o\" structure=\"rooted-hierarchy\"><item identifier=\"root\">"
            + items
            + "</item></organization></organizations><resources>"
            + resources
            + "</resources>"
            + authorizations
            + "</manifest>");
    return packed();
  }

  private byte[] packed() {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream(out)) {
      for (Map.Entry<String, byte[]> f : files.entrySet()) {
        zip.putNextEntry(new ZipEntry(f.getKey()));
        zip.write(f.getValue());
        zip.closeEntry();
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return out.toByteArray();
  }
}
