package org.zephyrmist.server.content;

import java.math.BigDecimal;
import java.util.List;
import org.springframework.web.util.HtmlUtils;
import org.zephyrmist.core.question.Answer;
import org.zephyrmist.core.question.Question;
import org.zephyrmist.core.question.QuestionSet;
import org.zephyrmist.core.question.QuestionType;

/** Questions as a text to read, with the right answers marked. */
final class QuestionsPage {
  private final StringBuilder html = new StringBuilder();
  private int number;

  static String of(QuestionSet set) {
    QuestionsPage page = new QuestionsPage();
    for (QuestionSet.Part p : set.parts()) {
      if (p instanceof QuestionSet.Group g) {
        page.group(g);
      } else {
        page.questions(p.questions());
      }
    }
    return page.html.toString();
  }

  private void group(QuestionSet.Group g) {
    String title = g.title().isBlank() ? "A group of questions" : g.title();
    html.append("<h3>").append(HtmlUtils.htmlEscape(title)).append("</h3><p>");
    if (g.draw().isPresent()) {
      html.append(g.draw().get()).append(" drawn by chance");
      html.append(g.questions().isEmpty() ? "" : " of " + g.questions().size());
    } else {
      html.append("All ").append(g.questions().size()).append(" asked");
    }
    g.bank().ifPresent(b -> html.append(" from the bank ").append(HtmlUtils.htmlEscape(b)));
    g.pointsEach().ifPresent(p -> html.append(", ").append(points(p)).append(" each"));
    html.append(".</p>");
    questions(g.questions());
  }

  private void questions(List<Question> all) {
    if (all.isEmpty()) {
      return;
    }
    html.append("<ol class=\"questions\" start=\"").append(number + 1).append("\">");
    all.forEach(this::question);
    html.append("</ol>");
  }

  private void question(Question q) {
    number++;
    html.append("<li><p class=\"about\">").append(words(q.type())).append(" · ");
    html.append(points(q.points())).append("</p>").append(q.html());
    if (!q.answers().isEmpty()) {
      html.append("<ul>");
      for (Answer a : q.answers()) {
        answer(q, a);
      }
      html.append("</ul>");
    }
    note("After any answer", q.notes().always());
    note("When right", q.notes().right());
    note("When wrong", q.notes().wrong());
    note("Hint", q.notes().hint());
    note("Model answer", q.notes().solution());
    html.append("</li>");
  }

  private void answer(Question q, Answer a) {
    html.append(a.right() ? "<li class=\"right\">" : "<li>");
    html.append(q.type().chosen() ? a.html() : HtmlUtils.htmlEscape(a.html()));
    if (a.right()) {
      boolean whole = a.percent().compareTo(Answer.ALL) >= 0;
      html.append(" <span class=\"about\">");
      html.append(whole ? "right" : a.percent().toPlainString() + " %").append("</span>");
    } else if (a.percent().signum() < 0) {
      html.append(" <span class=\"about\">")
          .append(a.percent().toPlainString())
          .append(" %</span>");
    }
    note("", a.feedback());
    html.append("</li>");
  }

  private void note(String what, String text) {
    if (!text.isEmpty()) {
      html.append("<div class=\"note\">");
      html.append(what.isEmpty() ? "" : "<span class=\"about\">" + what + "</span> ");
      html.append(text).append("</div>");
    }
  }

  private static String points(BigDecimal n) {
    return n.toPlainString() + (n.compareTo(BigDecimal.ONE) == 0 ? " point" : " points");
  }

  private static String words(QuestionType type) {
    return switch (type) {
      case MULTIPLE_CHOICE -> "One of several";
      case MULTIPLE_RESPONSE -> "Several of several";
      case TRUE_FALSE -> "True or false";
      case FILL_IN -> "Fill in";
      case PATTERN_MATCH -> "Fill in, a part is enough";
      case ESSAY -> "Essay";
      case OTHER -> "Of another type, kept as it came";
    };
  }
}
