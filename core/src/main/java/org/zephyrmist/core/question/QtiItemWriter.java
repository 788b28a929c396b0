package org.zephyrmist.core.question;

import java.util.List;
import javax.xml.stream.XMLStreamException;
import org.zephyrmist.core.xml.XmlOut;

/** Writes one question as an item of QTI 1.2.1 (Common Cartridge, item profiles). */
final class QtiItemWriter {
  private static final String RESPONSE = "response1";
  private static final String ALWAYS = "general_fb";
  private static final String RIGHT = "correct_fb";
  private static final String WRONG = "general_incorrect_fb";
  private final XmlOut x;

  QtiItemWriter(XmlOut x) {
    this.x = x;
  }

  void write(Question q) throws XMLStreamException {
    if (q.kept().isPresent()) {
      x.part(out -> KeptXml.copy(q.kept().get(), out));
      return;
    }
    x.open("item", "ident", q.id(), "title", q.title());
    metadata(q);
    presentation(q);
    marking(q);
    for (Answer a : q.answers()) {
      feedback(feedbackOf(a), a.feedback());
    }
    feedback(ALWAYS, q.notes().always());
    if (q.answers().stream().anyMatch(QtiItemWriter::full)) {
      feedback(RIGHT, q.notes().right()); // nobody else could see it
    }
    feedback(WRONG, q.notes().wrong());
    revealed("hint", q.notes().hint());
    revealed("solution", q.notes().solution());
    x.close();
  }

  private void metadata(Question q) throws XMLStreamException {
    x.open("itemmetadata").open("qtimetadata");
    QtiWriter.field(x, "cc_profile", q.type().profile());
    QtiWriter.field(x, "cc_weighting", q.points().toPlainString());
    if (!q.category().isEmpty()) {
      QtiWriter.field(x, "cc_question_category", q.category());
    }
    if (q.type() == QuestionType.ESSAY) {
      QtiWriter.field(x, "qmd_computerscored", "No");
    }
    x.close().close();
  }

  private void presentation(Question q) throws XMLStreamException {
    x.open("presentation");
    QtiWriter.material(x, q.html());
    if (q.type().chosen()) {
      boolean several = q.type() == QuestionType.MULTIPLE_RESPONSE;
      x.open("response_lid", "ident", RESPONSE, "rcardinality", several ? "Multiple" : "Single");
      x.open("render_choice", "shuffle", q.shuffled() ? "Yes" : "No");
      for (Answer a : q.answers()) {
        x.open("response_label", "ident", a.id());
        QtiWriter.material(x, a.html());
        x.close();
      }
    } else {
      x.open("response_str", "ident", RESPONSE, "rcardinality", "Single").open("render_fib");
      if (q.type() == QuestionType.ESSAY) {
        x.empty("response_label", "ident", "answer");
      }
    }
    x.close().close().close();
  }

  private void marking(Question q) throws XMLStreamException {
    boolean silent =
        q.notes().always().isEmpty() && q.notes().wrong().isEmpty() && q.answers().isEmpty();
    if (silent) {
      return;
    }
    x.open("resprocessing").open("outcomes");
    x.empty("decvar", "maxvalue", "100", "minvalue", "0", "varname", "SCORE", "vartype", "Decimal");
    x.close();
    if (!q.notes().always().isEmpty()) {
      x.open("respcondition", "continue", "Yes");
      x.open("conditionvar").empty("other").close();
      shows(ALWAYS).close();
    }
    for (Answer a : q.answers()) {
      if (!a.feedback().isEmpty() && (q.type().chosen() || full(a))) {
        x.open("respcondition", "continue", "Yes");
        met(q, List.of(a));
        shows(feedbackOf(a)).close();
      }
    }
    scores(q);
    if (!q.notes().wrong().isEmpty()) {
      x.open("respcondition", "continue", "No");
      x.open("conditionvar").empty("other").close();
      shows(WRONG).close();
    }
    x.close();
  }

  private void scores(Question q) throws XMLStreamException {
    List<Answer> right = q.answers().stream().filter(Answer::right).toList();
    boolean together =
        q.type() == QuestionType.MULTIPLE_RESPONSE
            && !right.isEmpty()
            && right.stream().allMatch(QtiItemWriter::full)
            && q.answers().stream().noneMatch(a -> a.percent().signum() < 0);
    if (together) {
      x.open("respcondition", "continue", "No").open("conditionvar").open("and");
      for (Answer a : q.answers()) {
        if (!a.right()) {
          x.open("not");
        }
        x.text("varequal", a.id(), "respident", RESPONSE);
        if (!a.right()) {
          x.close();
        }
      }
      x.close().close();
      score("Set", Answer.ALL.toPlainString());
      if (!q.notes().right().isEmpty()) {
        shows(RIGHT);
      }
      x.close();
      return;
    }
    boolean adds = q.type() == QuestionType.MULTIPLE_RESPONSE;
    for (Answer a : q.answers()) {
      if (a.percent().signum() == 0 && q.type().chosen()) {
        continue;
      }
      x.open("respcondition", "continue", adds ? "Yes" : "No");
      met(q, List.of(a));
      score(adds ? "Add" : "Set", a.percent().toPlainString());
      if (full(a) && !q.notes().right().isEmpty()) {
        shows(RIGHT);
      } else if (!full(a) && q.type().written() && !a.feedback().isEmpty()) {
        shows(feedbackOf(a));
      }
      x.close();
    }
  }

  private static boolean full(Answer a) {
    return a.percent().compareTo(Answer.ALL) >= 0;
  }

  private void met(Question q, List<Answer> answers) throws XMLStreamException {
    x.open("conditionvar");
    for (Answer a : answers) {
      if (q.type().chosen()) {
        x.text("varequal", a.id(), "respident", RESPONSE);
      } else {
        String test = q.type() == QuestionType.PATTERN_MATCH ? "varsubstring" : "varequal";
        x.text(test, a.html(), "respident", RESPONSE, "case", a.exactCase() ? "Yes" : "No");
      }
    }
    x.close();
  }

  private void score(String action, String percent) throws XMLStreamException {
    x.text("setvar", percent, "action", action, "varname", "SCORE");
  }

  private XmlOut shows(String feedback) throws XMLStreamException {
    return x.empty("displayfeedback", "feedbacktype", "Response", "linkrefid", feedback);
  }

  private static String feedbackOf(Answer a) {
    return "answer_" + a.id() + "_fb";
  }

  private void feedback(String ident, String html) throws XMLStreamException {
    if (!html.isEmpty()) {
      x.open("itemfeedback", "ident", ident).open("flow_mat");
      QtiWriter.material(x, html);
      x.close().close();
    }
  }

  private void revealed(String what, String html) throws XMLStreamException {
    if (!html.isEmpty()) {
      x.open("itemfeedback", "ident", what);
      x.open(what).open(what + "material").open("flow_mat");
      QtiWriter.material(x, html);
      x.close().close().close().close();
    }
  }
}
