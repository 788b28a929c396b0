package org.zephyrmist.core.question;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.w3c.dom.Element;
import org.zephyrmist.core.xml.Elements;

/**
 * How an item is marked: its response conditions and feedbacks (QTI 1.2.1, "resprocessing"; Common
 * Cartridge allows one condition that sets the score and others that only show a feedback).
 *
 * @param percents by what is answered, of the highest score
 * @param feedbacks by what is answered
 * @param written expected texts, in their order
 * @param parts whether a part of what is written is looked for
 * @param plain whether every condition is one that we understand
 */
record QtiMarking(
    Map<String, BigDecimal> percents,
    Map<String, String> feedbacks,
    List<Answer> written,
    Question.Notes notes,
    boolean parts,
    boolean plain) {

  static QtiMarking of(Element item, QtiText text) {
    return new Reading(item, text).marking();
  }

  BigDecimal percent(String answer) {
    return percents.getOrDefault(answer, BigDecimal.ZERO);
  }

  String feedback(String answer) {
    return feedbacks.getOrDefault(answer, "");
  }

  /** A comparison of an answer with a value. */
  private record Test(String name, String value, boolean exactCase) {}

  private static final class Reading {
    private final Element item;
    private final Map<String, String> texts = new HashMap<>();
    private final Map<String, BigDecimal> percents = new HashMap<>();
    private final Map<String, String> feedbacks = new HashMap<>();
    private final List<Answer> written = new ArrayList<>();
    private BigDecimal most = Answer.ALL;
    private String always = "";
    private String right = "";
    private String wrong = "";
    private String hint = "";
    private String solution = "";
    private boolean parts;
    private boolean plain = true;

    Reading(Element item, QtiText text) {
      this.item = item;
      for (Element f : Elements.children(item, "itemfeedback")) {
        if (Elements.child(f, "hint").isPresent()) {
          hint = text.html(f, List.of());
        } else if (Elements.child(f, "solution").isPresent()) {
          solution = text.html(f, List.of());
        } else {
          texts.put(f.getAttribute("ident"), text.html(f, List.of()));
        }
      }
    }

    QtiMarking marking() {
      Elements.child(item, "resprocessing").ifPresent(this::conditions);
      return new QtiMarking(
          percents,
          feedbacks,
          written.stream()
              .map(
                  a ->
                      new Answer(
                          a.id(),
                          a.html(),
                          a.percent(),
                          feedbacks.getOrDefault(a.html(), ""),
                          a.exactCase()))
              .toList(),
          new Question.Notes(always, right, wrong, hint, solution),
          parts,
          plain);
    }

    private void conditions(Element processing) {
      most =
          Elements.at(processing, "outcomes", "decvar")
              .flatMap(d -> number(d.getAttribute("maxvalue")))
              .filter(m -> m.signum() > 0)
              .orElse(Answer.ALL);
      for (Element c : Elements.children(processing, "respcondition")) {
        Optional<Element> var = Elements.child(c, "conditionvar");
        List<Test> tests = new ArrayList<>();
        var.ifPresent(v -> tests(v, tests));
        boolean other = var.flatMap(v -> Elements.child(v, "other")).isPresent();
        Optional<BigDecimal> score =
            Elements.children(c, "setvar").stream()
                .flatMap(s -> number(s.getTextContent()).stream())
                .findFirst()
                .map(this::percent);
        List<String> shown =
            Elements.children(c, "displayfeedback").stream()
                .map(f -> f.getAttribute("linkrefid"))
                .toList();
        if (other || tests.isEmpty()) {
          otherwise(c, shown, score);
        } else {
          met(tests, score, shown);
        }
      }
    }

    private BigDecimal percent(BigDecimal score) {
      return score.multiply(Answer.ALL).divide(most, 4, RoundingMode.HALF_EVEN);
    }

    private void met(List<Test> tests, Optional<BigDecimal> score, List<String> shown) {
      if (score.isPresent()) {
        boolean full = score.get().compareTo(Answer.ALL) >= 0;
        if (full) {
          shown.forEach(f -> right = joined(right, texts.getOrDefault(f, "")));
        }
        for (Test t : tests) {
          percents.merge(t.value(), score.get(), BigDecimal::max);
          boolean known =
              written.stream()
                  .anyMatch(a -> a.html().equals(t.value()) && a.exactCase() == t.exactCase());
          if (!known) {
            String id = String.valueOf(written.size() + 1);
            written.add(new Answer(id, t.value(), score.get(), "", t.exactCase()));
          }
        }
        if (!full && tests.size() == 1) {
          shown.forEach(
              f ->
                  feedbacks.merge(
                      tests.get(0).value(), texts.getOrDefault(f, ""), Reading::joined));
        }
      } else if (tests.size() == 1) {
        shown.forEach(
            f -> feedbacks.merge(tests.get(0).value(), texts.getOrDefault(f, ""), Reading::joined));
      }
      parts |= tests.stream().anyMatch(t -> t.name().equals("varsubstring"));
    }

    /** A feedback for any answer goes on; one for all that were not right is the last. */
    private void otherwise(Element c, List<String> shown, Optional<BigDecimal> score) {
      for (String f : shown) {
        String name = f.toLowerCase(Locale.ROOT);
        boolean onWrong =
            name.contains("incorrect")
                || name.contains("wrong")
                || !name.contains("general")
                    && !c.getAttribute("continue").equalsIgnoreCase("Yes")
                    && (score.isPresent() || !written.isEmpty() || !percents.isEmpty());
        if (onWrong) {
          wrong = joined(wrong, texts.getOrDefault(f, ""));
        } else {
          always = joined(always, texts.getOrDefault(f, ""));
        }
      }
    }

    private static String joined(String a, String b) {
      return a.isEmpty() || a.equals(b) ? b : b.isEmpty() ? a : a + b;
    }

    /** What must be so; what must not be is implied by it (item profile "multiple response"). */
    private void tests(Element e, List<Test> all) {
      for (Element c : Elements.children(e)) {
        switch (c.getLocalName()) {
          case "varequal", "varsubstring" ->
              all.add(
                  new Test(
                      c.getLocalName(),
                      c.getTextContent().strip(),
                      c.getAttribute("case").equalsIgnoreCase("Yes")));
          case "and", "or" -> tests(c, all);
          case "not", "other", "unanswered" -> {}
          default -> plain = false;
        }
      }
    }
  }

  /** A score, which may be negative; digits and size bounded. */
  private static Optional<BigDecimal> number(String text) {
    String t = text.strip();
    if (!t.matches("[+-]?\\d{1,6}(\\.\\d{1,6})?")) {
      return Optional.empty();
    }
    return Optional.of(new BigDecimal(t));
  }
}
