package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
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
import org.zephyrmist.core.tool.RelinkRule.Link;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

class RelinkedTreeTest {
  private static final Item TOOL =
      item(
          "tool",
          new Content.ToolLink(
              "", "https://loads.ropewalk.example/beam/7", new TreeMap<>(Map.of("unit", "7"))));
  private static final Item PAGE =
      item("page", new Content.Page("<p><a href=\"https://other.example/\">There</a></p>"));
  private static final Tree TREE =
      Tree.of(
          List.of(Node.of(TOOL, AppliesTo.EVERY_SECTION), Node.of(PAGE, AppliesTo.EVERY_SECTION)));

  private static Item item(String key, Content c) {
    return new Item(
        new ItemKey(key),
        key,
        c,
        Timing.NONE,
        new Place(Optional.empty(), Rank.nth(key.length())),
        Visibility.SHOWN,
        EditRule.ADAPTABLE);
  }

  private static Link moved(Link l) {
    return new Link(
        l.address().replace("https://loads.ropewalk.example", "https://ropewalk.example/l"),
        l.parameters());
  }

  @Test
  void onlyTheLaunchOfWhatMovedBecomesAnother() {
    RelinkedTree r = RelinkedTree.of(TREE, List.of(TOOL, PAGE), RelinkedTreeTest::moved);
    assertThat(r.items())
        .singleElement()
        .satisfies(
            i ->
                assertThat(i.content().launch().address())
                    .isEqualTo("https://ropewalk.example/l/beam/7"));
    Node before = TREE.get(TOOL.key()).orElseThrow();
    Node after = r.tree().get(TOOL.key()).orElseThrow();
    assertThat(after.aspects().get(Aspect.LAUNCH))
        .isNotEqualTo(before.aspects().get(Aspect.LAUNCH));
    assertThat(after.aspects().get(Aspect.WORDING)).isEqualTo(before.aspects().get(Aspect.WORDING));
    assertThat(r.tree().get(PAGE.key())).isEqualTo(TREE.get(PAGE.key()));
  }

  @Test
  void whereNothingMovesTheTreeIsTheSame() {
    assertThat(RelinkedTree.of(TREE, List.of(TOOL, PAGE), l -> l).tree()).isSameAs(TREE);
  }
}
