package org.zephyrmist.core.cartridge;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.function.Predicate;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.HandIn;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.question.Question;
import org.zephyrmist.core.question.QuestionSet;
import org.zephyrmist.core.question.QuestionType;

/**
 * What a package cannot hold of some items, and the handwork that it leaves at the other end.
 *
 * @param what is lost, as one sentence
 * @param handwork what somebody has to do there; empty where nothing can be done
 * @param titles of the items
 */
public record PackageLoss(String what, String handwork, List<String> titles) {

  /**
   * All that is lost of items in a format.
   *
   * @param questions of a quiz or bank
   */
  public static List<PackageLoss> of(
      List<Item> items, PackageChoices choices, Function<FileRef, QuestionSet> questions) {
    Collected c = new Collected(items, choices);
    c.leftOut();
    c.lost();
    c.questions(questions);
    return c.losses();
  }

  private static final class Collected {
    private final List<Item> items;
    private final PackageChoices choices;
    private final PackageFormat format;
    private final Map<String, PackageLoss> all = new LinkedHashMap<>();

    Collected(List<Item> items, PackageChoices choices) {
      this.items = items;
      this.choices = choices;
      this.format = choices.format();
    }

    List<PackageLoss> losses() {
      return List.copyOf(all.values());
    }

    private void add(String what, String handwork, Predicate<Item> which) {
      List<String> titles = items.stream().filter(which).map(Item::title).toList();
      if (!titles.isEmpty()) {
        all.put(what, new PackageLoss(what, handwork, titles));
      }
    }

    private boolean held(Item i) {
      return CartridgeWriter.holds(i, choices);
    }

    void leftOut() {
      for (Kind kind : Kind.values()) {
        boolean none = kind != Kind.MODULE && format.type(kind).isEmpty();
        if (none) {
          add(
              format.words() + " has no " + kind.words() + ": left out.",
              "Make them by hand in the shell.",
              i -> i.kind() == kind);
        }
      }
      add(
          "What is only for instructors is left out, as you chose.",
          "",
          i -> i.visibility().instructorsOnly() && !choices.instructorsOnly());
      add(
          "Links that lead nowhere are left out.",
          "Give them an address in the master.",
          i -> i.kind().leads() && i.content().launch().address().isEmpty());
    }

    void lost() {
      add(
          "Dates are in no package of this standard.",
          "Enter opening, due and closing dates in the shell.",
          i -> held(i) && !i.timing().equals(Timing.NONE));
      add(
          "Hidden items arrive shown.",
          "Hide them in the shell.",
          i -> held(i) && !i.visibility().shown() && !i.visibility().instructorsOnly());
      add(
          "Question banks have no place in the outline: they arrive beside it.",
          "Find them among the shell's question banks.",
          i -> held(i) && i.kind() == Kind.QUESTION_BANK);
      add(
          "Assignments are pages in " + format.words() + ".",
          "Make an assignment of each in the shell, with its points.",
          i -> held(i) && i.kind() == Kind.ASSIGNMENT && !format.assignments());
      add(
          "Grade categories, rubrics and group sets are not held.",
          "Choose them in the shell.",
          i ->
              held(i)
                  && (i.content().grading().category().isPresent()
                      || i.content().grading().rubric().isPresent()
                      || i.content().grading().groupSet().isPresent()));
      add(
          "Which files are accepted and whether work is compared with others' is not held.",
          "Set both in the shell.",
          i -> held(i) && i.content().grading().handIn().filter(Collected::more).isPresent());
      add(
          "Points, attempts and time limits are left out, as you chose.",
          "Enter them in the shell.",
          i -> held(i) && !choices.grading() && !i.content().grading().equals(Grading.NONE));
      add(
          "Parameters of tool links are left out, as you chose.",
          "Enter them in the shell, link by link.",
          i -> held(i) && !choices.parameters() && !i.content().launch().parameters().isEmpty());
      add(
          "The tool in which a task is done is in no package of this standard.",
          "Set it at the task in the shell.",
          i -> held(i) && i.kind() == Kind.ASSIGNMENT && !i.content().launch().address().isEmpty());
      add(
          "Whether a tool returns grades is in no package of this standard.",
          "Switch grade return on in the shell, link by link, where it is wanted.",
          i -> held(i) && i.kind() == Kind.TOOL_LINK);
      add(
          "Texts of links are not held.",
          "",
          i -> held(i) && i.kind() == Kind.WEB_LINK && !i.content().html().isEmpty());
    }

    private static boolean more(HandIn h) {
      return !h.endings().isEmpty() || h.checked();
    }

    void questions(Function<FileRef, QuestionSet> questions) {
      List<String> draws = new ArrayList<>();
      List<String> odd = new ArrayList<>();
      for (Item i : items) {
        boolean asks = i.kind() == Kind.QUIZ || i.kind() == Kind.QUESTION_BANK;
        if (held(i) && asks) {
          QuestionSet set = i.content().madeOf().map(questions).orElseThrow();
          if (set.parts().stream().anyMatch(p -> p instanceof QuestionSet.Group)) {
            draws.add(i.title());
          }
          if (set.questions().stream().map(Question::type).anyMatch(QuestionType.OTHER::equals)) {
            odd.add(i.title());
          }
        }
      }
      put(
          "Groups and draws by chance are not held: all questions are asked.",
          "Set the draw again in the shell.",
          draws);
      put(
          "Some questions are of no type of the standard; other systems may not read them.",
          "Look at these quizzes in the shell.",
          odd);
    }

    private void put(String what, String handwork, List<String> titles) {
      if (!titles.isEmpty()) {
        all.put(what, new PackageLoss(what, handwork, List.copyOf(titles)));
      }
    }
  }
}
