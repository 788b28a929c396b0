package org.zephyrmist.core.question;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.w3c.dom.Element;
import org.zephyrmist.core.xml.Elements;

/** What one item of QTI 1.2 asks and how it marks (Common Cartridge, item profiles). */
record QtiItem(
    QuestionType type,
    String html,
    List<Answer> answers,
    boolean shuffled,
    Question.Notes notes,
    Optional<String> kept,
    Optional<String> remark) {

  static QtiItem of(Element item, QtiText text) {
    Element presentation = Elements.child(item, "presentation").orElse(item);
    List<Element> responses = new ArrayList<>();
    responses(presentation, responses);
    String html =
        text.html(
            presentation,
            List.of(
                "response_lid",
                "response_str",
                "response_num",
                "response_xy",
                "response_grp",
                "itemfeedback",
                "resprocessing",
                "itemmetadata",
                "itemrubric"));
    QtiMarking marking = QtiMarking.of(item, text);
    Optional<QuestionType> type = type(item, responses, marking);
    if (type.isEmpty()) {
      return new QtiItem(
          QuestionType.OTHER,
          html,
          List.of(),
          false,
          marking.notes(),
          Optional.of(text.kept(item)),
          Optional.of("is of a type that the standard does not have; it is kept as it came."));
    }
    List<Answer> answers =
        type.get().chosen()
            ? choices(responses.get(0), text, marking)
            : type.get().written() ? marking.written() : List.of();
    Optional<String> remark =
        type.get() != QuestionType.ESSAY && answers.stream().noneMatch(Answer::right)
            ? Optional.of("no answer of it is marked as right.")
            : Optional.empty();
    boolean shuffled =
        responses.stream()
            .flatMap(r -> Elements.child(r, "render_choice").stream())
            .anyMatch(r -> r.getAttribute("shuffle").equalsIgnoreCase("Yes"));
    return new QtiItem(
        type.get(), html, answers, shuffled, marking.notes(), Optional.empty(), remark);
  }

  private static void responses(Element e, List<Element> all) {
    for (Element c : Elements.children(e)) {
      if (c.getLocalName().startsWith("response_") && !c.getLocalName().equals("response_label")) {
        all.add(c);
      } else if (!c.getLocalName().equals("material")) {
        responses(c, all);
      }
    }
  }

  /** The type that the item names, if it is built so; else the one that it is built as. */
  private static Optional<QuestionType> type(
      Element item, List<Element> responses, QtiMarking marking) {
    Optional<QuestionType> named =
        Elements.child(item, "itemmetadata")
            .flatMap(m -> Elements.child(m, "qtimetadata"))
            .flatMap(
                m ->
                    Elements.children(m, "qtimetadatafield").stream()
                        .filter(f -> Elements.text(f, "fieldlabel").equals("cc_profile"))
                        .map(f -> Elements.text(f, "fieldentry"))
                        .findFirst())
            .flatMap(QuestionType::of);
    if (responses.size() > 1) {
      return Optional.empty();
    }
    if (responses.isEmpty()) {
      return named.filter(t -> t == QuestionType.ESSAY);
    }
    Element r = responses.get(0);
    boolean choice = Elements.child(r, "render_choice").isPresent();
    boolean string = r.getLocalName().equals("response_str");
    if (named.isPresent()) {
      boolean fits = named.get().chosen() ? choice : string && marking.plain();
      return named.filter(t -> fits);
    }
    if (choice) {
      return Optional.of(
          r.getAttribute("rcardinality").equalsIgnoreCase("Multiple")
              ? QuestionType.MULTIPLE_RESPONSE
              : trueOrFalse(r) ? QuestionType.TRUE_FALSE : QuestionType.MULTIPLE_CHOICE);
    }
    if (!string || !marking.plain()) {
      return Optional.empty();
    }
    return Optional.of(
        marking.written().isEmpty()
            ? QuestionType.ESSAY
            : marking.parts() ? QuestionType.PATTERN_MATCH : QuestionType.FILL_IN);
  }

  private static boolean trueOrFalse(Element response) {
    List<String> words =
        labels(response).stream()
            .map(l -> l.getTextContent().strip().toLowerCase(Locale.ROOT))
            .toList();
    return words.size() == 2 && words.contains("true") && words.contains("false");
  }

  private static List<Element> labels(Element response) {
    List<Element> all = new ArrayList<>();
    Elements.child(response, "render_choice").ifPresent(r -> labels(r, all));
    return all;
  }

  private static void labels(Element e, List<Element> all) {
    for (Element c : Elements.children(e)) {
      if (c.getLocalName().equals("response_label")) {
        all.add(c);
      } else {
        labels(c, all);
      }
    }
  }

  private static List<Answer> choices(Element response, QtiText text, QtiMarking marking) {
    Map<String, Answer> all = new LinkedHashMap<>();
    Map<String, Integer> seen = new HashMap<>();
    for (Element l : labels(response)) {
      String given = l.getAttribute("ident").strip();
      int n = seen.merge(given, 1, Integer::sum);
      String id = n == 1 ? given : given + "-" + n;
      all.put(
          id,
          new Answer(
              id,
              text.html(l, List.of()),
              n == 1 ? marking.percent(given) : BigDecimal.ZERO,
              n == 1 ? marking.feedback(given) : "",
              false));
    }
    return List.copyOf(all.values());
  }
}
