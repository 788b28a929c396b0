package org.zephyrmist.core.edition;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;

class SecondLookTest {
  private static Item item(
      String key, String title, Content c, String parent, boolean instructors) {
    return new Item(
        new ItemKey(key),
        title,
        c,
        Timing.NONE,
        new Place(Optional.ofNullable(parent), Rank.nth(0)),
        new Visibility(true, instructors),
        EditRule.ADAPTABLE);
  }

  private static final String LOADS =
      "<p>A circuit of twenty amperes carries nineteen hundred watts in steady use.</p>";

  private static SecondLook.Source source(String prefix, boolean whole) {
    Item module = item(prefix + "m", "Week 1", new Content.Module(), null, false);
    Item reading =
        item(prefix + "a", "Reading: loads", new Content.Page(LOADS), prefix + "m", false);
    Item key = item(prefix + "k", "Answer key", new Content.Page("<p>Nineteen.</p>"), null, true);
    Item film =
        item(
            prefix + "f",
            "Film of the week",
            new Content.Page("<iframe src=\"https://film.example/1\"></iframe>"),
            null,
            false);
    return new SecondLook.Source(
        whole ? List.of(module, reading, key, film) : List.of(module, reading), Map.of());
  }

  @Test
  void whatOnlyOneHasIsSeenWhateverItIsCalledByItsMaker() {
    SecondLook s = SecondLook.of(source("x", true), source("y", false));
    assertThat(s.shared()).extracting(p -> p.left().title()).contains("Week 1", "Reading: loads");
    assertThat(s.shared()).as("the module too").allMatch(SecondLook.Shared::equal);
    assertThat(s.onlyLeft())
        .extracting(Item::title)
        .containsExactly("Answer key", "Film of the week");
    assertThat(s.onlyRight()).isEmpty();
  }

  @Test
  void eachSideIsCounted() {
    SecondLook.Counts c = SecondLook.of(source("x", true), source("y", false)).left();
    assertThat(c.kinds()).isEqualTo(Map.of(Kind.MODULE, 1, Kind.PAGE, 3));
    assertThat(c.modules()).isEqualTo(1);
    assertThat(c.depth()).isEqualTo(2);
    assertThat(c.words()).isEqualTo(13);
    assertThat(c.instructorsOnly()).isEqualTo(1);
    assertThat(c.frames()).containsExactly("film.example");
  }
}
