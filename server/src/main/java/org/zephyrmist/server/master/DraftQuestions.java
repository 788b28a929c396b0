package org.zephyrmist.server.master;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.question.Assessment;
import org.zephyrmist.core.question.Fault;
import org.zephyrmist.core.question.QtiWriter;
import org.zephyrmist.core.question.Question;
import org.zephyrmist.core.question.QuestionSet;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.content.Questions;
import org.zephyrmist.server.web.Refusal;

/** Questions of a quiz or a bank as they are written here. */
@Component
class DraftQuestions {
  private static final String QTI = "text/xml";
  private final Files files;
  private final Questions questions;

  DraftQuestions(Files files, Questions questions) {
    this.files = files;
    this.questions = questions;
  }

  /**
   * Questions that somebody wrote.
   *
   * @param seen what the item's wording was when they began; may be absent
   */
  record Written(QuestionSet set, Optional<String> seen) {}

  /** A file without any question. */
  FileRef none(ItemKey key, Kind kind) {
    boolean bank = kind == Kind.QUESTION_BANK;
    return keep(
        "questions.xml",
        new Assessment(
            (bank ? "bank-" : "quiz-") + key.value(),
            "",
            "",
            Optional.empty(),
            Optional.empty(),
            bank,
            new QuestionSet(List.of()),
            List.of()));
  }

  /** The item with these questions; what it had and nobody can write here stays as it was. */
  Item written(Item i, Written w) {
    Entries.check(i.kind(), Kind.Field.QUESTIONS);
    FileRef before = i.content().madeOf().orElseThrow();
    Assessment old = questions.assessment(before).orElseThrow(DraftQuestions::unreadable);
    Map<String, Question> known =
        old.set().questions().stream().collect(Collectors.toMap(Question::id, Function.identity()));
    QuestionSet set = replaced(w.set(), known);
    for (Question q : set.questions()) {
      Fault.of(q)
          .ifPresent(
              f -> {
                throw Refusal.bad(named(set, q) + ": " + f, "Change the question, then save it.");
              });
    }
    Assessment now =
        new Assessment(
            old.ident(),
            old.title(),
            old.presentation(),
            old.attempts(),
            old.minutes(),
            old.bank(),
            set,
            List.of());
    boolean bank = i.kind() == Kind.QUESTION_BANK;
    Aspects a = Aspects.of(i);
    int count = bank ? set.questions().size() : set.asked();
    a = a.with(a.wording().withQuestions(keep(before.name(), now), count, pictures(set)));
    Optional<BigDecimal> points = a.grading().points();
    boolean follows = points.isEmpty() || points.get().compareTo(old.set().points()) == 0;
    if (!bank && follows && set.points().signum() > 0) {
      a = a.with(a.grading().withPoints(Optional.of(set.points())));
    }
    return a.item(i.key(), i.kind(), i.rule());
  }

  static Refusal unreadable() {
    return Refusal.bad(
        "The questions of this item cannot be read.", "Take it in again, or make a new quiz.");
  }

  private static String named(QuestionSet set, Question q) {
    return "Question " + (set.questions().indexOf(q) + 1);
  }

  /** Questions of a type that cannot be written here are taken from before. */
  private static QuestionSet replaced(QuestionSet set, Map<String, Question> known) {
    return new QuestionSet(
        set.parts().stream()
            .map(
                p ->
                    p instanceof QuestionSet.Group g
                        ? new QuestionSet.Group(
                            g.id(),
                            g.title(),
                            g.draw(),
                            g.pointsEach(),
                            g.bank(),
                            g.questions().stream().map(q -> replaced(q, known)).toList())
                        : replaced((Question) p, known))
            .map(QuestionSet.Part.class::cast)
            .toList());
  }

  private static Question replaced(Question q, Map<String, Question> known) {
    Question before = known.get(q.id());
    return before != null && before.kept().isPresent() ? before : q;
  }

  /** Files that its texts show. */
  private List<FileRef> pictures(QuestionSet set) {
    Map<String, String> names = new TreeMap<>();
    set.texts().forEach(t -> References.files(t).forEach(f -> names.put(f.sha256(), f.name())));
    return new ArrayList<>(new TreeMap<>(files.refs(names)).values());
  }

  private FileRef keep(String name, Assessment a) {
    try {
      return files.keep(name, QTI, new ByteArrayInputStream(QtiWriter.withDraws(a)));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
