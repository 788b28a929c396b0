package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Launch;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.tool.RelinkRule.Limits;
import org.zephyrmist.core.tool.RelinkRule.Link;
import org.zephyrmist.core.tool.ToolLinks.Stands;

class ToolLinksTest {
  private static final Set<String> HOSTS = Set.of("loads.ropewalk.example");
  private static final String ADDRESS = "https://loads.ropewalk.example/beam/7";
  private static final RelinkRules MOVED =
      new RelinkRules(
          List.of(
              new RelinkRule(
                  "moved",
                  new AddressPattern("//loads.ropewalk.example{*rest}"),
                  new Template("https://ropewalk.example/l{*rest}"),
                  Map.of("v", Optional.of(new Template("2"))),
                  Limits.NONE)));
  private static final SectionPlace SECTION =
      new SectionPlace("s3", "RIG 140", "quay", "t1", Map.of());
  private static final UnaryOperator<Link> RULES =
      l -> MOVED.of(l, "m", SECTION, LocalDate.EPOCH).link();

  private static Item item(Content c) {
    return new Item(
        new ItemKey("k"),
        "Beams",
        c,
        Timing.NONE,
        new Place(Optional.empty(), "i"),
        Visibility.SHOWN,
        EditRule.ADAPTABLE);
  }

  private static Item page() {
    return item(
        new Content.Page(
            "<p><a href=\"%s\">Beam</a>, <a href=\"%s\">again</a>, <a href=\"https://x.example/\">x</a></p>"
                .formatted(ADDRESS, ADDRESS)));
  }

  @Test
  void aToolLinkIsOneWhateverItsHostAndATextLeadsToToolsAlone() {
    Item tool = item(new Content.ToolLink("", "https://new.example/l", new TreeMap<>()));
    assertThat(ToolLinks.in(tool, HOSTS::contains))
        .extracting(ToolLinks.Found::host)
        .containsExactly("new.example");
    assertThat(ToolLinks.in(page(), HOSTS::contains))
        .as("each address once")
        .singleElement()
        .satisfies(f -> assertThat(f.stands()).isEqualTo(Stands.TEXT));
    assertThat(ToolLinks.in(item(new Content.WebLink(ADDRESS, true)), HOSTS::contains)).hasSize(1);
    assertThat(ToolLinks.in(item(new Content.WebLink("https://x.example/", true)), HOSTS::contains))
        .isEmpty();
  }

  @Test
  void theToolInWhichATaskIsDoneIsALinkOfItAndIsRewrittenAsOne() {
    Content.Assignment task =
        new Content.Assignment(
            "<p>Do it.</p>",
            Grading.points(BigDecimal.TEN),
            List.of(),
            new Launch(ADDRESS, false, new TreeMap<>()));
    assertThat(ToolLinks.in(item(task), h -> false))
        .extracting(ToolLinks.Found::stands)
        .containsExactly(Stands.SETTING);
    Item to =
        ToolLinks.relinked(Aspects.of(item(task)), RULES)
            .item(new ItemKey("k"), Kind.ASSIGNMENT, EditRule.ADAPTABLE);
    assertThat(to.content().launch().address()).isEqualTo("https://ropewalk.example/l/beam/7");
    assertThat(to.content().grading()).isEqualTo(task.grading());
    assertThat(ToolLinks.in(item(new Content.Assignment("", Grading.NONE)), h -> !h.isEmpty()))
        .isEmpty();
  }

  @Test
  void aRuleReachesItemsAndTextsAndTwiceIsOnce() {
    for (Item i :
        List.of(
            page(), item(new Content.ToolLink("", ADDRESS, new TreeMap<>(Map.of("unit", "7")))))) {
      Aspects once = ToolLinks.relinked(Aspects.of(i), RULES);
      assertThat(once.forms().toString())
          .contains("https://ropewalk.example/l/beam/7")
          .doesNotContain("loads.ropewalk.example");
      assertThat(ToolLinks.relinked(once, RULES)).isEqualTo(once);
    }
  }

  @Test
  void whatNoRuleIsAboutStaysTheSame() {
    Item i = item(new Content.Page("<p><a href=\"https://x.example/\">x</a> &amp; more</p>"));
    assertThat(ToolLinks.relinked(Aspects.of(i), RULES)).isEqualTo(Aspects.of(i));
  }
}
