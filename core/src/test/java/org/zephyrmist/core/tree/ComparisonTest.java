package org.zephyrmist.core.tree;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.tree.Comparison.Change;
import org.zephyrmist.core.tree.Comparison.How;

class ComparisonTest {
  private static Node node(String key, String title, Map<Aspect, String> forms) {
    return Sample.node(
        new ItemKey(key),
        Kind.PAGE,
        title,
        EditRule.ADAPTABLE,
        false,
        Optional.empty(),
        Sample.aspects(forms, "none"));
  }

  private static List<Change> compare(List<Node> older, List<Node> newer) {
    return Comparison.of(Sample.tree(older), Sample.tree(newer));
  }

  private static Node page(String key, String wording, String place) {
    return node(key, key, Map.of(Aspect.WORDING, wording, Aspect.PLACE, place));
  }

  @Test
  void whatIsNewWhatIsGoneAndWhatStayedTheSame() {
    List<Change> changes =
        compare(
            List.of(page("a", "1", "x"), page("b", "1", "x")),
            List.of(page("b", "1", "x"), page("c", "1", "x")));
    assertThat(changes)
        .extracting(c -> c.key() + " " + c.how())
        .containsExactly("c ADDED", "a GONE");
  }

  @Test
  void anItemOfWhichOnlyThePlaceDiffersIsMoved() {
    assertThat(compare(List.of(page("a", "1", "x")), List.of(page("a", "1", "y"))))
        .singleElement()
        .satisfies(c -> assertThat(c.how()).isEqualTo(How.MOVED));
  }

  @Test
  void anItemThatMovedAndChangedIsChangedOnBothAspects() {
    assertThat(compare(List.of(page("a", "1", "x")), List.of(page("a", "2", "y"))))
        .singleElement()
        .satisfies(
            c -> {
              assertThat(c.how()).isEqualTo(How.CHANGED);
              assertThat(c.aspects()).containsExactly(Aspect.WORDING, Aspect.PLACE);
            });
  }

  @Test
  void aRenamedItemTellsItsTitleBefore() {
    Node before = node("a", "Loads", Map.of(Aspect.WORDING, "1"));
    Node after = node("a", "Circuits", Map.of(Aspect.WORDING, "2"));
    Change c = compare(List.of(before), List.of(after)).get(0);
    assertThat(c.before()).isEqualTo("Loads");
    assertThat(c.title()).isEqualTo("Circuits");
  }

  @Test
  void changesStandInTheOrderOfTheNewerTree() {
    List<Node> older = List.of(page("a", "1", "x"), page("b", "1", "x"));
    List<Node> newer = List.of(page("b", "2", "x"), page("n", "1", "x"), page("a", "2", "x"));
    assertThat(compare(older, newer))
        .extracting(c -> c.key().value())
        .containsExactly("b", "n", "a");
  }

  private static List<Node> tree(Random random) {
    Map<String, Node> all = new TreeMap<>();
    for (int i = random.nextInt(8); i > 0; i--) {
      String key = "k" + random.nextInt(8);
      all.put(key, page(key, "w" + random.nextInt(2), "p" + random.nextInt(2)));
    }
    return new ArrayList<>(all.values());
  }

  @Test
  void nothingDiffersFromItself() {
    Laws.hold(
        random -> {
          List<Node> tree = tree(random);
          assertThat(compare(tree, tree)).isEmpty();
        });
  }

  @Test
  void backwardsAddedIsGoneAndTheRestIsAsItWas() {
    Laws.hold(
        random -> {
          List<Node> a = tree(random);
          List<Node> b = tree(random);
          Map<ItemKey, How> there = new TreeMap<>();
          compare(a, b).forEach(c -> there.put(c.key(), c.how()));
          Map<ItemKey, How> back = new TreeMap<>();
          compare(b, a)
              .forEach(
                  c ->
                      back.put(
                          c.key(),
                          switch (c.how()) {
                            case ADDED -> How.GONE;
                            case GONE -> How.ADDED;
                            case MOVED, CHANGED -> c.how();
                          }));
          assertThat(back).isEqualTo(there);
        });
  }
}
