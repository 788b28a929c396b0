package org.zephyrmist.core.check;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.zephyrmist.core.check.Finding.Rule;
import org.zephyrmist.core.content.Embedded;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Marks;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.Suspicious;
import org.zephyrmist.core.question.QuestionSet;
import org.zephyrmist.core.tree.Tree;

/** Whether a draft is ready to be frozen: what is to be looked at, in outline order by rule. */
public final class Readiness {
  private static final BigDecimal ALL = new BigDecimal(100);
  private final Draft draft;
  private final List<Finding> found = new ArrayList<>();

  private Readiness(Draft draft) {
    this.draft = draft;
  }

  /**
   * A draft with what is known around it.
   *
   * @param items of the tree, in outline order
   * @param files fingerprints of those that are kept, of all that texts refer to
   * @param values names of values that have a text
   * @param questions of quizzes and banks that can be read
   * @param banks identifiers by which quizzes name the banks of this draft
   */
  public record Draft(
      Tree tree,
      List<Item> items,
      Guard guard,
      Set<String> files,
      Frames frames,
      Set<String> values,
      Map<ItemKey, QuestionSet> questions,
      Set<String> banks) {}

  public static List<Finding> of(Draft draft) {
    Readiness r = new Readiness(draft);
    draft.guard().refuses(draft.tree()).forEach(n -> r.add(Rule.GUARD, n.key(), n.title(), ""));
    r.weights();
    Conditions conditions = new Conditions(draft.items());
    for (Item i : draft.items()) {
      r.text(i);
      r.grading(i);
      r.questions(i);
      r.empty(i);
      conditions.wrong(i).forEach(w -> r.add(Rule.CONDITION, i, w));
    }
    return r.found.stream().sorted(java.util.Comparator.comparing(Finding::rule)).toList();
  }

  private void add(Rule rule, ItemKey key, String title, String detail) {
    found.add(new Finding(rule, Optional.of(key), title, detail));
  }

  private void add(Rule rule, Item i, String detail) {
    add(rule, i.key(), i.title(), detail);
  }

  private void text(Item i) {
    String html = i.content().html();
    Suspicious.in(i.title(), html).ifPresent(w -> add(Rule.OPEN_NOTE, i, "“" + w + "”"));
    if (html.isEmpty()) {
      return;
    }
    long dead = Html.addresses(html).stream().filter(this::dead).count();
    if (dead > 0) {
      add(Rule.DEAD_LINK, i, dead == 1 ? "1 reference" : dead + " references");
    }
    String hosts =
        Html.embedded(html).stream()
            .filter(e -> e.frame() && !draft.frames().allow(e.address()))
            .map(Embedded::address)
            .map(a -> Frames.host(a).isEmpty() ? "an address without a host" : Frames.host(a))
            .distinct()
            .collect(Collectors.joining(", "));
    if (!hosts.isEmpty()) {
      add(Rule.FRAME, i, hosts);
    }
    String values =
        Marks.values(html).stream()
            .filter(v -> !draft.values().contains(v))
            .collect(Collectors.joining(", "));
    if (!values.isEmpty()) {
      add(Rule.VALUE, i, values);
    }
  }

  private boolean dead(String address) {
    if (address.equals(References.NOWHERE)) {
      return true;
    }
    return References.isOurs(address)
        && References.asFile(address).filter(f -> draft.files().contains(f.sha256())).isEmpty()
        && References.asItem(address).filter(r -> draft.tree().has(r.key())).isEmpty();
  }

  private void grading(Item i) {
    Grading g = i.content().grading();
    if (g.category().filter(k -> !here(k, Kind.GRADE_CATEGORY)).isPresent()) {
      add(Rule.GONE, i, "Its grade category is not here.");
    }
    if (g.rubric().filter(k -> !here(k, Kind.RUBRIC)).isPresent()) {
      add(Rule.GONE, i, "Its rubric is not here.");
    }
    if (g.groupSet().filter(k -> !here(k, Kind.GROUP_SET)).isPresent()) {
      add(Rule.GONE, i, "Its group set is not here.");
    }
    boolean lost =
        i.content().criteria().stream()
            .flatMap(c -> c.outcome().stream())
            .anyMatch(k -> !here(k, Kind.OUTCOME));
    if (lost) {
      add(Rule.GONE, i, "An outcome that a line of it shows is not here.");
    }
  }

  private boolean here(String key, Kind kind) {
    return draft.tree().get(new ItemKey(key)).filter(n -> n.kind() == kind).isPresent();
  }

  private void questions(Item i) {
    QuestionSet set = draft.questions().get(i.key());
    if (i.kind() != Kind.QUIZ || set == null) {
      return;
    }
    if (set.asked() == 0) {
      add(Rule.NO_BANK, i, "It asks nothing.");
    }
    for (QuestionSet.Part p : set.parts()) {
      if (p instanceof QuestionSet.Group g) {
        if (g.bank().filter(b -> !draft.banks().contains(b)).isPresent()) {
          add(Rule.NO_BANK, i, "The bank it draws from is not here.");
        } else if (g.bank().isEmpty()
            && g.draw().filter(n -> n > g.questions().size()).isPresent()) {
          String drawn = g.draw().get() + " of " + g.questions().size();
          add(Rule.NO_BANK, i, "It draws " + drawn + " questions.");
        }
      }
    }
  }

  private void empty(Item i) {
    if (i.kind().leads() && i.content().launch().address().isBlank()) {
      add(Rule.NO_ADDRESS, i, "");
    }
    boolean written =
        switch (i.kind()) {
          case PAGE, ASSIGNMENT, DISCUSSION, ANNOUNCEMENT ->
              !i.content().html().isEmpty() || !i.content().attached().isEmpty();
          case RUBRIC -> !i.content().criteria().isEmpty();
          case GROUP_SET -> !i.content().groups().isEmpty();
          case MODULE -> !draft.tree().in(Optional.of(i.key())).isEmpty();
          case SETUP ->
              !i.content().html().isEmpty()
                  || !i.content().entries().isEmpty()
                  || i.content().madeOf().isPresent();
          case FILE, WEB_LINK, TOOL_LINK, QUIZ, QUESTION_BANK, OUTCOME, GRADE_CATEGORY -> true;
        };
    if (!written) {
      add(Rule.EMPTY, i, "");
    }
  }

  /** Where any category has a weight, all of them together make the whole grade. */
  private void weights() {
    List<BigDecimal> weights =
        draft.items().stream().flatMap(i -> i.content().grading().weight().stream()).toList();
    BigDecimal sum = weights.stream().reduce(BigDecimal.ZERO, BigDecimal::add);
    if (!weights.isEmpty() && sum.compareTo(ALL) != 0) {
      String detail = "They make " + sum.toPlainString() + " percent.";
      found.add(new Finding(Rule.WEIGHTS, Optional.empty(), "", detail));
    }
  }
}
