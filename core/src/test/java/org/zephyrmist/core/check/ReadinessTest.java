package org.zephyrmist.core.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.zephyrmist.core.check.Finding.Rule;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.Condition;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.question.QuestionSet;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

class ReadinessTest {
  private static final String SHA = Fingerprint.of("kept").hex();
  private final List<Item> items = new ArrayList<>();

  private Item add(String key, Content c, Visibility v) {
    Item i =
        new Item(
            new ItemKey(key),
            "Item " + key,
            c,
            Timing.NONE,
            new Place(Optional.empty(), Rank.nth(items.size())),
            v,
            EditRule.ADAPTABLE);
    items.add(i);
    return i;
  }

  private void add(String key, Content c) {
    add(key, c, Visibility.SHOWN);
  }

  private void page(String html) {
    add("p" + items.size(), new Content.Page(html));
  }

  private List<Finding> found(Guard guard, Map<ItemKey, QuestionSet> questions) {
    Tree tree = Tree.of(items.stream().map(i -> Node.of(i, AppliesTo.EVERY_SECTION)).toList());
    return Readiness.of(
        new Readiness.Draft(
            tree,
            items,
            guard,
            Set.of(SHA),
            new Frames(Set.of("film.example")),
            Set.of("section-code"),
            questions,
            Set.of("bank-1")));
  }

  private List<Rule> rules() {
    return found(Guard.NONE, Map.of()).stream().map(Finding::rule).toList();
  }

  @Test
  void aDraftInOrderHasNoFindings() {
    page("<p>Read <a href=\"" + References.item(new ItemKey("p0"), "") + "\">this</a>.</p>");
    page("<p><a href=\"" + References.file(SHA, "a.pdf", "") + "\">file</a></p>");
    page("<p><iframe src=\"https://film.example/1\"></iframe></p>");
    page("<p><data class=\"z-value\" value=\"section-code\">code</data></p>");
    assertThat(rules()).isEmpty();
  }

  @Test
  void referencesToWhatIsNotHereAreDead() {
    page(
        "<p><a href=\"#\">a</a> <a href=\""
            + References.item(new ItemKey("away"), "")
            + "\">b</a> <a href=\""
            + References.file(Fingerprint.of("lost").hex(), "c.pdf", "")
            + "\">c</a> <a href=\"#top\">top</a></p>");
    assertThat(found(Guard.NONE, Map.of()))
        .extracting(Finding::rule, Finding::detail)
        .containsExactly(org.assertj.core.groups.Tuple.tuple(Rule.DEAD_LINK, "3 references"));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "TODO: new table",
        "Ask the publisher for the key",
        "[insert your name here]",
        "Note to self: too long",
        "For the builder only: move this",
        "Delete this before you publish"
      })
  void aSentenceThatLooksLikeANoteIsNamedUnlessItIsMarked(String words) {
    page("<p>" + words + "</p>");
    assertThat(rules()).containsExactly(Rule.OPEN_NOTE);
    items.clear();
    page("<p>Text.</p><aside class=\"z-builder\"><p>" + words + "</p></aside>");
    assertThat(rules()).isEmpty();
  }

  @ParameterizedTest
  @ValueSource(
      strings = {"Place the holder in the clamp.", "Remove the gel.", "To do this, take a wrench."})
  void ordinarySentencesAreNoNotes(String words) {
    page("<p>" + words + "</p>");
    assertThat(rules()).isEmpty();
  }

  @Test
  void framesValuesLinksAndEmptyItemsAreLookedAt() {
    page("<iframe src=\"https://map.example/\"></iframe>");
    page("<p><data class=\"z-value\" value=\"room\">room</data></p>");
    add("w", new Content.WebLink("", true));
    page("");
    assertThat(rules()).containsExactly(Rule.NO_ADDRESS, Rule.FRAME, Rule.VALUE, Rule.EMPTY);
  }

  @Test
  void weightsAddUpOrAreTold() {
    weight("a", 60);
    weight("b", 30);
    assertThat(found(Guard.NONE, Map.of()).get(0).detail()).isEqualTo("They make 90 percent.");
    weight("c", 10);
    assertThat(rules()).isEmpty();
  }

  private void weight(String key, int percent) {
    add(
        key,
        new Content.GradeCategory(Grading.NONE.withWeight(Optional.of(new BigDecimal(percent)))));
  }

  @Test
  void aCategoryOrRubricThatIsNotHereIsTold() {
    weight("labs", 100);
    Grading g = Grading.NONE.withCategory(Optional.of("labs")).withRubric(Optional.of("labs"));
    add("a", new Content.Assignment("<p>Hang it.</p>", g));
    assertThat(found(Guard.NONE, Map.of()))
        .extracting(Finding::detail)
        .containsExactly("Its rubric is not here.");
  }

  @Test
  void aQuizWithoutItsBankIsTold() {
    FileRef qti = new FileRef(SHA, "q.xml", "text/xml", 3);
    add("q", new Content.Quiz("", qti, 3, Grading.NONE));
    assertThat(found(Guard.NONE, Map.of(new ItemKey("q"), drawing("bank-1")))).isEmpty();
    assertThat(found(Guard.NONE, Map.of(new ItemKey("q"), drawing("bank-2"))))
        .extracting(Finding::rule)
        .containsExactly(Rule.NO_BANK);
    assertThat(found(Guard.NONE, Map.of(new ItemKey("q"), new QuestionSet(List.of()))))
        .extracting(Finding::detail)
        .containsExactly("It asks nothing.");
  }

  private static QuestionSet drawing(String bank) {
    return new QuestionSet(
        List.of(
            new QuestionSet.Group(
                "g", "", Optional.of(3), Optional.empty(), Optional.of(bank), List.of())));
  }

  @Test
  void conditionsThatNobodyCanMeetAreTold() {
    Content.Page text = new Content.Page("<p>Text.</p>");
    add("a", text, waitsFor(Condition.read(new ItemKey("c"))));
    add("b", text, waitsFor(Condition.read(new ItemKey("a"))));
    add("c", text, waitsFor(Condition.read(new ItemKey("b"))));
    add("d", text, waitsFor(Condition.read(new ItemKey("away"))));
    add("e", text, waitsFor(Condition.score(new ItemKey("d"), BigDecimal.TEN)));
    add("f", text, waitsFor(Condition.read(new ItemKey("e"))));
    assertThat(found(Guard.NONE, Map.of()))
        .allMatch(f -> f.rule() == Rule.CONDITION)
        .extracting(Finding::title)
        .containsExactly("Item a", "Item b", "Item c", "Item d", "Item e");
  }

  private static Visibility waitsFor(Condition c) {
    return Visibility.SHOWN.withConditions(List.of(c));
  }

  @Test
  void aGuardRefusesOtherKindsAndMoreThanItAllows() {
    Guard one = new Guard(new TreeMap<>(Map.of(Kind.PAGE, 1, Kind.OUTCOME, 0)));
    add("m", new Content.Module());
    page("<p>First.</p>");
    add("o1", new Content.Outcome("<p>Works.</p>"));
    add("o2", new Content.Outcome("<p>Works safely.</p>"));
    assertThat(one.refuses(Tree.of(List.of()))).isEmpty();
    assertThat(found(one, Map.of()).stream().filter(f -> f.rule().stops())).isEmpty();
    page("<p>Second.</p>");
    add("x", new Content.Announcement("<p>Hello.</p>"));
    assertThat(found(one, Map.of()).stream().filter(f -> f.rule().stops()))
        .extracting(Finding::title)
        .containsExactly("Item p4", "Item x");
  }
}
