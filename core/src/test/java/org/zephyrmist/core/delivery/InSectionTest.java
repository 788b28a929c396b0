package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

class InSectionTest {
  private static final String CODE =
      "<p>You are in <data class=\"z-value\" value=\"section-code\">section code</data>.</p>";

  private static Item page(String key, int rank, String html) {
    return new Item(
        new ItemKey(key),
        key,
        new Content.Page(html),
        Timing.NONE,
        new Place(Optional.empty(), Rank.nth(rank)),
        Visibility.SHOWN,
        EditRule.ADAPTABLE);
  }

  private static Tree tree(List<Item> items) {
    return Tree.of(items.stream().map(i -> Node.of(i, AppliesTo.EVERY_SECTION)).toList());
  }

  private static InSection in(String section, List<Item> all, List<Item> marked) {
    return InSection.of(tree(all), marked, name -> Optional.of(section));
  }

  @Test
  void aMarkedTextBecomesAnotherInEachSectionAndTheRestStays() {
    List<Item> all = List.of(page("a", 0, CODE), page("b", 1, "<p>Same.</p>"));
    Tree four = in("04", all, all.subList(0, 1)).tree();
    Tree five = in("05", all, all.subList(0, 1)).tree();
    assertThat(four.get(new ItemKey("b"))).isEqualTo(five.get(new ItemKey("b")));
    assertThat(
            four.get(new ItemKey("a"))
                .orElseThrow()
                .aspects()
                .differing(five.get(new ItemKey("a")).orElseThrow().aspects()))
        .containsExactly(Aspect.WORDING);
  }

  @Test
  void aNoteToInstructorsStandsAloneBesideItsItemAndOutOfStudentsSight() {
    String noted = "<p>Text.</p><aside class=\"z-instructor\"><p>Key in the booth.</p></aside>";
    List<Item> all = List.of(page("a", 0, noted), page("b", 1, ""));
    InSection once = in("04", all, all.subList(0, 1));
    assertThat(once.tree().nodes())
        .extracting(Node::title)
        .containsExactly("a", "For instructors: a", "b");
    Item note = once.items().get(1);
    assertThat(note.content().html()).isEqualTo("<p>Key in the booth.</p>");
    assertThat(note.visibility()).isEqualTo(new Visibility(false, true));
    assertThat(once.items().get(0).content().html()).isEqualTo("<p>Text.</p>");
    assertThat(in("05", all, all.subList(0, 1)).items().get(1).key()).isEqualTo(note.key());
  }

  @Test
  void aBuildersItemIsMeantForNoSection() {
    assertThat(AppliesTo.NOBODY.covers("quay", "online", java.util.Set.of("evening"))).isFalse();
  }
}
