package org.zephyrmist.core.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.content.Condition;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.TimingPattern;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.content.When;
import org.zephyrmist.core.shell.FromShell.There;
import org.zephyrmist.core.shell.FromShell.Why;

class FromShellTest {
  private static final Timing DUE = Timing.NONE.withDue(Timing.at("2026-09-14T18:00"));

  private static final Timing OPENS =
      DUE.with(Point.DUE, Optional.empty()).with(Point.OPENS, DUE.due());

  private static final Content TIED =
      new Content.ToolLink(
          "", "https://tool.example/", new TreeMap<>(Map.of("unit", "3", "course", "77")));

  private static There there(String id, String parent, Content c, Timing t, boolean work) {
    return new There(
        new Item(
            new ItemKey(id),
            "Item " + id,
            c,
            t,
            new Place(Optional.ofNullable(parent).map(p -> "here:" + p), Rank.nth(0)),
            Visibility.SHOWN,
            EditRule.ADAPTABLE),
        work);
  }

  private static There page(String id, String parent, String html) {
    return there(id, parent, new Content.Page(html), Timing.NONE, false);
  }

  private static FromShell of(List<There> shell) {
    return FromShell.of(shell, i -> Optional.empty());
  }

  @Test
  void whatBelongsToThatTermStaysOutAndIsNamed() {
    FromShell f =
        of(
            List.of(
                there("m", null, new Content.Module(), Timing.NONE, false),
                there("a", "m", new Content.Announcement("<p>Hall B!</p>"), Timing.NONE, false),
                there("p", null, new Content.Page("<p>Text.</p>"), DUE, true),
                there(
                    "t",
                    null,
                    new Content.ToolLink(
                        "", "https://tool.example/", new TreeMap<>(Map.of("course", "77"))),
                    Timing.NONE,
                    false)));
    assertThat(f.items()).extracting(Item::title).containsExactly("Item p", "Item t");
    assertThat(f.left())
        .extracting(FromShell.Left::why)
        .containsExactlyInAnyOrder(
            Why.ANNOUNCEMENT, Why.STUDENT_WORK, Why.DATES, Why.TOOL_TIE, Why.EMPTY_MODULE);
    assertThat(f.items().get(0).timing()).isEqualTo(Timing.NONE);
    assertThat(f.items().get(1).content().launch().parameters()).isEmpty();
  }

  @Test
  void datesThatBecomePatternsComeAlong() {
    Timing week5 =
        Timing.NONE.with(
            TimingPattern.NONE.with(Point.DUE, When.of("week 5 Mon 18:00", Point.DUE)));
    List<There> shell =
        List.of(
            there("p", null, new Content.Page("<p>Text.</p>"), DUE, false),
            there("q", null, new Content.Page("<p>Text.</p>"), OPENS, false));
    FromShell f = FromShell.of(shell, i -> Optional.empty(), t -> t.equals(DUE) ? week5 : t);
    assertThat(f.items().get(0).timing()).isEqualTo(week5);
    assertThat(f.items().get(1).timing()).isEqualTo(Timing.NONE);
    assertThat(f.left()).containsExactly(new FromShell.Left(Why.DATES, "Item q"));
  }

  @Test
  void anItemOfASourceKeepsItsKeyItsRuleAndItsParameters() {
    Item source =
        new Item(
            new ItemKey("of-source"),
            "Item t",
            new Content.ToolLink("", "https://tool.example/", new TreeMap<>(Map.of("unit", "3"))),
            Timing.NONE,
            new Place(Optional.empty(), Rank.nth(0)),
            Visibility.SHOWN,
            EditRule.FIXED);
    FromShell f =
        FromShell.of(
            List.of(
                there("t1", null, TIED, Timing.NONE, false),
                there("t2", null, TIED, Timing.NONE, false)),
            i -> Optional.of(new FromShell.Known("edition", source, false)));
    assertThat(f.items().get(0).key()).isEqualTo(source.key());
    assertThat(f.items().get(0).rule()).isEqualTo(EditRule.FIXED);
    assertThat(f.items().get(0).content().launch().parameters()).containsOnlyKeys("unit");
    assertThat(f.items().get(1).key())
        .as("a copy of it is the shell's own")
        .isNotEqualTo(source.key());
    assertThat(f.origins()).containsOnlyKeys(source.key());
  }

  @Test
  void whatIsTakenFreshEachTermIsNeverTakenFromAShell() {
    There tied = there("t", "m", TIED, Timing.NONE, false);
    There module = there("m", null, new Content.Module(), Timing.NONE, false);
    FromShell f =
        FromShell.of(
            List.of(module, tied, page("p", null, "<p>Text.</p>")),
            i ->
                Optional.of(i)
                    .filter(x -> !x.title().equals("Item p"))
                    .map(x -> new FromShell.Known("edition", x, true)));
    assertThat(f.items()).extracting(Item::title).containsExactly("Item p");
    assertThat(f.left())
        .containsExactly(
            new FromShell.Left(Why.FRESH_EACH_TERM, "Item t"),
            new FromShell.Left(Why.EMPTY_MODULE, "Item m"));
  }

  @Test
  void whatRefersToEachOtherStillDoes() {
    There first =
        page("a", null, "<p><a href=\"" + References.item(new ItemKey("b"), "#x") + "\">b</a></p>");
    There second = page("b", null, "<p>Text.</p>");
    There waits =
        new There(
            new Item(
                new ItemKey("c"),
                "Item c",
                new Content.Page(""),
                Timing.NONE,
                new Place(Optional.empty(), Rank.nth(2)),
                Visibility.SHOWN.withConditions(
                    List.of(Condition.read(new ItemKey("a")), Condition.read(new ItemKey("away")))),
                EditRule.ADAPTABLE),
            false);
    FromShell f = of(List.of(first, second, waits));
    ItemKey a = f.items().get(0).key();
    ItemKey b = f.items().get(1).key();
    assertThat(f.items().get(0).content().html()).contains(References.item(b, "#x"));
    assertThat(f.items().get(2).visibility().conditions()).containsExactly(Condition.read(a));
  }
}
