package org.zephyrmist.core.question;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.w3c.dom.Element;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.xml.Elements;

/**
 * Reads an assessment or an object bank (QTI 1.2.1; Common Cartridge profile). What other systems
 * write besides the profile is read where QTI describes it: nested sections, draws from banks,
 * partial weights. A question of no type of the profile is kept with its XML.
 */
public final class QtiReader {
  private static final int DEEPEST = 50;
  private final QtiText text;
  private final Map<String, Integer> ids = new HashMap<>();
  private final List<String> remarks = new ArrayList<>();

  private QtiReader(UnaryOperator<String> refer) {
    this.text = new QtiText(refer);
  }

  /**
   * @param root {@code questestinterop}
   * @param refer turns the addresses in a text into references, and gives its canonical form
   */
  public static Assessment read(Element root, UnaryOperator<String> refer) {
    return new QtiReader(refer).document(root);
  }

  private Assessment document(Element root) {
    Optional<Element> bank = Elements.child(root, "objectbank");
    Element body = Elements.child(root, "assessment").or(() -> bank).orElse(root);
    List<QuestionSet.Part> parts = new ArrayList<>();
    parts(body, parts, 0);
    Optional<Integer> attempts =
        field(body, "cc_maxattempts")
            .filter(a -> !a.equalsIgnoreCase("unlimited"))
            .flatMap(a -> count(a, "The number of attempts"));
    Optional<Integer> minutes =
        field(body, "qmd_timelimit")
            .or(() -> duration(body))
            .flatMap(a -> count(a, "The time limit"));
    String presentation =
        Elements.child(body, "presentation_material")
            .or(() -> Elements.child(body, "rubric"))
            .map(p -> text.html(p, List.of()))
            .orElse("");
    return new Assessment(
        body.getAttribute("ident"),
        body.getAttribute("title"),
        presentation,
        attempts,
        minutes,
        bank.isPresent() && Elements.child(root, "assessment").isEmpty(),
        new QuestionSet(parts),
        List.copyOf(remarks));
  }

  /** ISO 8601 duration of QTI 1.2, of which hours and minutes are taken. */
  private static Optional<String> duration(Element body) {
    return Optional.of(Elements.text(body, "duration"))
        .filter(d -> d.matches("P?T?\\d+M?"))
        .map(d -> d.replaceAll("\\D", ""));
  }

  private Optional<Integer> count(String value, String what) {
    if (value.isBlank() || value.strip().equals("0")) {
      return Optional.empty();
    }
    Optional<Integer> n =
        Grading.number(value)
            .filter(b -> b.stripTrailingZeros().scale() <= 0)
            .map(BigDecimal::intValue);
    if (n.isEmpty()) {
      remarks.add(what + " is “" + shortened(value) + "”, which is none; it counts as unlimited.");
    }
    return n;
  }

  private void parts(Element e, List<QuestionSet.Part> parts, int depth) {
    for (Element c : Elements.children(e)) {
      if (c.getLocalName().equals("item")) {
        parts.add(question(c));
      } else if (c.getLocalName().equals("section") && depth < DEEPEST) {
        section(c, parts, depth, only(e, c));
      }
    }
  }

  /** The one section that the standard asks for is no group. */
  private static boolean only(Element above, Element section) {
    return Elements.children(above, "section").size() == 1
        && Elements.children(above, "item").isEmpty()
        && above.getLocalName().equals("assessment")
        && Elements.child(section, "selection_ordering")
            .flatMap(s -> Elements.child(s, "selection"))
            .isEmpty();
  }

  private void section(Element s, List<QuestionSet.Part> parts, int depth, boolean only) {
    if (only) {
      parts(s, parts, depth + 1);
      return;
    }
    List<QuestionSet.Part> below = new ArrayList<>();
    parts(s, below, depth + 1);
    List<Question> questions = below.stream().flatMap(p -> p.questions().stream()).toList();
    Optional<Element> selection = Elements.at(s, "selection_ordering", "selection");
    Optional<Integer> draw =
        selection
            .map(x -> Elements.text(x, "selection_number"))
            .filter(n -> !n.isBlank())
            .flatMap(n -> count(n, "The number of questions drawn"));
    Optional<String> bank =
        selection.map(x -> Elements.text(x, "sourcebank_ref")).filter(b -> !b.isBlank());
    Optional<BigDecimal> each =
        selection
            .map(x -> Elements.text(x, "selection_extension", "points_per_item"))
            .flatMap(Grading::number);
    parts.add(
        new QuestionSet.Group(
            unique(s.getAttribute("ident"), "section"),
            s.getAttribute("title").strip(),
            draw,
            each,
            bank,
            questions));
  }

  private String unique(String ident, String name) {
    String id = ident.isBlank() ? name : ident.strip();
    int n = ids.merge(id, 1, Integer::sum);
    if (n == 1) {
      return id;
    }
    if (!ident.isBlank()) {
      remarks.add("Two questions have the identifier " + id + "; the second was given another.");
    }
    return unique(id + "-" + n, name);
  }

  private Question question(Element item) {
    String id = unique(item.getAttribute("ident"), "question");
    String title = item.getAttribute("title").strip();
    BigDecimal points =
        Elements.child(item, "itemmetadata")
            .flatMap(m -> field(m, "cc_weighting").or(() -> field(m, "points_possible")))
            .map(w -> weight(w, title.isEmpty() ? id : title))
            .orElse(BigDecimal.ONE);
    String category =
        Elements.child(item, "itemmetadata")
            .flatMap(m -> field(m, "cc_question_category"))
            .orElse("");
    QtiItem read = QtiItem.of(item, text);
    read.remark().ifPresent(r -> remarks.add((title.isEmpty() ? id : title) + ": " + r));
    return new Question(
        id,
        title,
        read.type(),
        read.html(),
        read.answers(),
        points,
        category,
        read.shuffled(),
        read.notes(),
        read.kept());
  }

  private BigDecimal weight(String value, String question) {
    return Grading.number(value)
        .orElseGet(
            () -> {
              remarks.add(
                  question
                      + ": its points are “"
                      + shortened(value)
                      + "”, which is no number of points; it counts one point.");
              return BigDecimal.ONE;
            });
  }

  private static String shortened(String value) {
    String v = value.strip();
    return v.length() > 40 ? v.substring(0, 40) + "…" : v;
  }

  private static Optional<String> field(Element e, String label) {
    return Elements.children(e, "qtimetadata").stream()
        .flatMap(m -> Elements.children(m, "qtimetadatafield").stream())
        .filter(f -> Elements.text(f, "fieldlabel").equals(label))
        .map(f -> Elements.text(f, "fieldentry"))
        .findFirst();
  }
}
