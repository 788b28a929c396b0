package org.zephyrmist.server.master;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.question.Answer;
import org.zephyrmist.core.question.Question;
import org.zephyrmist.core.question.QuestionSet;
import org.zephyrmist.core.question.QuestionType;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.server.content.Previews;
import org.zephyrmist.server.content.Questions;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Questions of a quiz or a bank, one by one. */
@RestController
@RequestMapping(path = "/api/masters/{id}", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class QuestionApi {
  private final Masters masters;
  private final Trees trees;
  private final Questions questions;
  private final Drafts drafts;

  QuestionApi(Masters masters, Trees trees, Questions questions, Drafts drafts) {
    this.masters = masters;
    this.trees = trees;
    this.questions = questions;
    this.drafts = drafts;
  }

  /** What is asked, in its order. */
  record Asked(@NotNull @Size(max = 1_000) List<@NotNull @Valid Stretch> parts) {}

  /**
   * Questions that follow each other.
   *
   * @param group what holds for all of them; absent for questions in no group
   */
  record Stretch(
      @Valid DrawnGroup group,
      @NotNull @Size(max = 5_000) List<@NotNull @Valid AskedQuestion> questions) {}

  /**
   * A group of questions.
   *
   * @param draw how many are asked; absent: all
   * @param pointsEach absent: each has its own
   * @param bank they are drawn from, by its identifier; absent: from the questions of the group
   */
  record DrawnGroup(
      @NotBlank @Size(max = 200) String id,
      @NotNull @Size(max = 400) String title,
      Integer draw,
      String pointsEach,
      @Size(max = 400) String bank) {}

  /**
   * @param kept whether it is of a type that cannot be written here and stays as it is
   */
  record AskedQuestion(
      @NotBlank @Size(max = 200) String id,
      @NotNull @Size(max = 400) String title,
      @NotNull QuestionType type,
      @NotNull @Size(max = 400_000) String html,
      @NotNull @Size(max = 200) List<@NotNull @Valid GivenAnswer> answers,
      @NotNull String points,
      @NotNull @Size(max = 400) String category,
      boolean shuffled,
      @NotNull Question.Notes notes,
      boolean kept) {}

  record GivenAnswer(
      @NotBlank @Size(max = 200) String id,
      @NotNull @Size(max = 400_000) String html,
      @NotNull String percent,
      @NotNull @Size(max = 400_000) String feedback,
      boolean exactCase) {}

  /** A bank of the same draft or version, that a quiz can draw from. */
  record Bank(@NotNull String ident, @NotNull String key, @NotNull String title, int questions) {}

  record QuestionsOf(@NotNull Asked asked, @NotNull List<Bank> banks) {}

  record NewQuestions(@NotNull @Valid Asked asked, String seen) {}

  @GetMapping("/versions/{number}/items/{key}/questions")
  QuestionsOf questions(
      @PathVariable UUID id,
      @PathVariable int number,
      @PathVariable String key,
      @AuthenticationPrincipal SignedIn who) {
    MasterRecord master = masters.get(id, who);
    UUID tree = masters.tree(master, number);
    Item item = trees.item(tree, Previews.key(key));
    if (!item.kind().fields().contains(Kind.Field.QUESTIONS)) {
      return new QuestionsOf(new Asked(List.of()), List.of());
    }
    QuestionSet set = questions.of(item).orElseThrow(DraftQuestions::unreadable);
    return new QuestionsOf(asked(set), item.kind() == Kind.QUIZ ? banks(tree) : List.of());
  }

  private List<Bank> banks(UUID tree) {
    List<Node> nodes =
        trees.tree(tree).nodes().stream().filter(n -> n.kind() == Kind.QUESTION_BANK).toList();
    List<Item> items = trees.items(nodes);
    List<Bank> banks = new ArrayList<>();
    var idents = questions.idents(items);
    for (Item i : items) {
      Optional.ofNullable(idents.get(i.key()))
          .ifPresent(
              ident ->
                  banks.add(
                      new Bank(
                          ident,
                          i.key().value(),
                          i.title(),
                          i.content().questionCount().orElse(0))));
    }
    return banks;
  }

  @PutMapping("/draft/items/{key}/questions")
  void write(
      @PathVariable UUID id,
      @PathVariable String key,
      @Valid @RequestBody NewQuestions n,
      @AuthenticationPrincipal SignedIn who) {
    drafts.questions(
        masters.get(id, who),
        Previews.key(key),
        new DraftQuestions.Written(set(n.asked()), Optional.ofNullable(n.seen())),
        who);
  }

  private static Asked asked(QuestionSet set) {
    List<Stretch> parts = new ArrayList<>();
    List<AskedQuestion> alone = new ArrayList<>();
    for (QuestionSet.Part p : set.parts()) {
      if (p instanceof QuestionSet.Group g) {
        flush(alone, parts);
        parts.add(
            new Stretch(
                new DrawnGroup(
                    g.id(),
                    g.title(),
                    g.draw().orElse(null),
                    g.pointsEach().map(BigDecimal::toPlainString).orElse(null),
                    g.bank().orElse(null)),
                g.questions().stream().map(QuestionApi::asked).toList()));
      } else {
        alone.add(asked((Question) p));
      }
    }
    flush(alone, parts);
    return new Asked(parts);
  }

  private static void flush(List<AskedQuestion> alone, List<Stretch> parts) {
    if (!alone.isEmpty()) {
      parts.add(new Stretch(null, List.copyOf(alone)));
      alone.clear();
    }
  }

  private static AskedQuestion asked(Question q) {
    return new AskedQuestion(
        q.id(),
        q.title(),
        q.type(),
        q.html(),
        q.answers().stream()
            .map(
                a ->
                    new GivenAnswer(
                        a.id(), a.html(), a.percent().toPlainString(), a.feedback(), a.exactCase()))
            .toList(),
        q.points().toPlainString(),
        q.category(),
        q.shuffled(),
        q.notes(),
        q.kept().isPresent());
  }

  private static QuestionSet set(Asked asked) {
    List<QuestionSet.Part> parts = new ArrayList<>();
    for (Stretch s : asked.parts()) {
      List<Question> all = s.questions().stream().map(QuestionApi::question).toList();
      if (s.group() == null) {
        parts.addAll(all);
      } else {
        parts.add(group(s.group(), all));
      }
    }
    try {
      return new QuestionSet(parts);
    } catch (IllegalArgumentException e) {
      throw Refusal.bad(e.getMessage() + ".", "Give each question an id of its own.");
    }
  }

  private static QuestionSet.Group group(DrawnGroup g, List<Question> all) {
    if (g.draw() != null && g.draw() < 1) {
      throw Refusal.bad("A draw of no question asks nothing.", "Draw one at least.");
    }
    return new QuestionSet.Group(
        g.id(),
        g.title(),
        Optional.ofNullable(g.draw()),
        Optional.ofNullable(g.pointsEach()).flatMap(Entries::points),
        Optional.ofNullable(g.bank()).filter(b -> !b.isBlank()),
        all);
  }

  private static Question question(AskedQuestion q) {
    return new Question(
        q.id(),
        q.title(),
        q.kept() ? QuestionType.OTHER : q.type(),
        q.html(),
        q.answers().stream().map(QuestionApi::answer).toList(),
        Entries.points(q.points()).orElse(BigDecimal.ZERO),
        q.category(),
        q.shuffled(),
        q.notes(),
        Optional.empty());
  }

  private static Answer answer(GivenAnswer a) {
    return new Answer(a.id(), a.html(), percent(a.percent()), a.feedback(), a.exactCase());
  }

  private static BigDecimal percent(String text) {
    boolean less = text.strip().startsWith("-");
    BigDecimal n =
        Grading.number(less ? text.strip().substring(1) : text)
            .filter(p -> p.compareTo(Answer.ALL) <= 0)
            .orElseThrow(
                () ->
                    Refusal.bad(
                        "“" + text + "” is no share of the points.",
                        "Write a number from -100 to 100."));
    return less ? n.negate() : n;
  }
}
