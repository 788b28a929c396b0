package org.zephyrmist.core.question;

import java.io.ByteArrayOutputStream;
import java.util.List;
import javax.xml.stream.XMLStreamException;
import org.zephyrmist.core.xml.XmlOut;

/**
 * Writes questions as QTI 1.2.1 in the profile of Common Cartridge. Equal questions give equal
 * bytes, and reading them gives the questions again.
 */
public final class QtiWriter {
  private static final String SPACE = "http://www.imsglobal.org/xsd/ims_qtiasiv1p2";
  private static final String XSI = "http://www.w3.org/2001/XMLSchema-instance";
  private static final String PLACE =
      "http://www.imsglobal.org/profile/cc/ccv1p3/ccv1p3_qtiasiv1p2p1_v1p0.xsd";

  private final XmlOut x;
  private final boolean draws;

  private QtiWriter(XmlOut x, boolean draws) {
    this.x = x;
    this.draws = draws;
  }

  /** With the draws of groups, which QTI has and the profile of Common Cartridge has not. */
  public static byte[] withDraws(Assessment a) {
    return write(a, true);
  }

  /** As the profile wants it: one section; all questions of a group are asked. */
  public static byte[] inProfile(Assessment a) {
    return write(a, false);
  }

  private static byte[] write(Assessment a, boolean draws) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try {
      XmlOut x = new XmlOut(bytes);
      x.open(
          "questestinterop",
          "xmlns",
          SPACE,
          "xmlns:xsi",
          XSI,
          "xsi:schemaLocation",
          SPACE + " " + PLACE);
      QtiWriter w = new QtiWriter(x, draws);
      if (a.bank()) {
        w.bank(a);
      } else {
        w.assessment(a);
      }
      x.close().end();
    } catch (XMLStreamException e) {
      throw new IllegalStateException("Nothing is written but memory", e);
    }
    return bytes.toByteArray();
  }

  private void bank(Assessment a) throws XMLStreamException {
    x.open("objectbank", "ident", a.ident());
    for (Question q : a.set().questions()) {
      new QtiItemWriter(x).write(q);
    }
    x.close();
  }

  private void assessment(Assessment a) throws XMLStreamException {
    x.open("assessment", "ident", a.ident(), "title", a.title()).open("qtimetadata");
    field(x, "cc_profile", "cc.exam.v0p1");
    field(x, "qmd_assessmenttype", "Examination");
    field(x, "qmd_scoretype", "Percentage");
    field(x, "cc_maxattempts", a.attempts().map(String::valueOf).orElse("unlimited"));
    if (a.minutes().isPresent()) {
      field(x, "qmd_timelimit", String.valueOf(a.minutes().get()));
    }
    x.close();
    if (!a.presentation().isEmpty()) {
      x.open("presentation_material").open("flow_mat");
      material(x, a.presentation());
      x.close().close();
    }
    x.open("section", "ident", "root_section");
    for (QuestionSet.Part p : a.set().parts()) {
      if (p instanceof QuestionSet.Group g && draws) {
        group(g);
      } else {
        items(p.questions());
      }
    }
    x.close().close();
  }

  private void group(QuestionSet.Group g) throws XMLStreamException {
    x.open("section", "ident", g.id(), "title", g.title());
    if (g.draw().isPresent() || g.bank().isPresent() || g.pointsEach().isPresent()) {
      x.open("selection_ordering").open("selection");
      x.some("sourcebank_ref", g.bank().orElse(""));
      x.some("selection_number", g.draw().map(String::valueOf).orElse(""));
      if (g.pointsEach().isPresent()) {
        x.open("selection_extension");
        x.text("points_per_item", g.pointsEach().get().toPlainString()).close();
      }
      x.close().close();
    }
    items(g.questions());
    x.close();
  }

  private void items(List<Question> questions) throws XMLStreamException {
    for (Question q : questions) {
      new QtiItemWriter(x).write(q);
    }
  }

  static void field(XmlOut x, String label, String entry) throws XMLStreamException {
    x.open("qtimetadatafield");
    x.text("fieldlabel", label).text("fieldentry", entry).close();
  }

  static void material(XmlOut x, String html) throws XMLStreamException {
    x.open("material").text("mattext", html, "texttype", "text/html").close();
  }
}
