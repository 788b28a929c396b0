package org.zephyrmist.core.cartridge;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.w3c.dom.Element;
import org.zephyrmist.core.content.Grading;

/**
 * What is read of an assessment or question bank (QTI 1.2.1, Common Cartridge profile): title,
 * number of questions, points, attempts. The questions themselves stay in their file.
 *
 * @param presentation text before the questions
 */
record Qti(String title, int questions, Grading grading, String presentation) {

  static Qti read(Element root) {
    Element body =
        Xml.child(root, "assessment").or(() -> Xml.child(root, "objectbank")).orElse(root);
    List<Element> items = new ArrayList<>();
    collect(body, items, 0);
    BigDecimal sum = items.stream().map(Qti::points).reduce(BigDecimal.ZERO, BigDecimal::add);
    Optional<BigDecimal> points = Grading.number(sum.toPlainString());
    Optional<Integer> attempts =
        field(body, "cc_maxattempts").flatMap(Grading::number).map(BigDecimal::intValue);
    Grading grading =
        new Grading(
            items.isEmpty() ? Optional.empty() : points,
            Optional.empty(),
            Optional.empty(),
            attempts,
            Optional.empty());
    String text = Xml.text(body, "presentation_material", "flow_mat", "material", "mattext");
    return new Qti(body.getAttribute("title"), items.size(), grading, text);
  }

  private static void collect(Element e, List<Element> items, int depth) {
    for (Element c : Xml.children(e)) {
      if (c.getLocalName().equals("item")) {
        items.add(c);
      } else if (c.getLocalName().equals("section") && depth < 50) {
        collect(c, items, depth + 1);
      }
    }
  }

  /** Weight of a question; one point where none is given. */
  private static BigDecimal points(Element item) {
    return Xml.child(item, "itemmetadata")
        .flatMap(m -> field(m, "cc_weighting"))
        .flatMap(Grading::number)
        .orElse(BigDecimal.ONE);
  }

  private static Optional<String> field(Element e, String label) {
    return Xml.children(e, "qtimetadata").stream()
        .flatMap(m -> Xml.children(m, "qtimetadatafield").stream())
        .filter(f -> Xml.text(f, "fieldlabel").equals(label))
        .map(f -> Xml.text(f, "fieldentry"))
        .findFirst();
  }
}
