package org.zephyrmist.core.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;

/** What an exported package tells of a shell whose platform nobody can ask. */
class ExportedTest {
  private static final String[] WORDS = {
    "lamp", "rope", "flat", "bolt", "cue", "drape", "plot", "gel", "truss", "prompt", "hoist",
    "wing"
  };

  private static Item item(String key, String parent, int n, String title, Content c) {
    return new Item(
        new ItemKey(key),
        title,
        c,
        Timing.NONE,
        new Place(Optional.ofNullable(parent), Rank.nth(n)),
        Visibility.SHOWN,
        EditRule.ADAPTABLE);
  }

  private static Item page(String key, String parent, int n, String text) {
    return item(
        key, parent, n, "About " + text.split(" ")[0], new Content.Page("<p>" + text + "</p>"));
  }

  private static Exported read(List<Item> known, List<Item> there) {
    return Exported.of(known, there, i -> Optional.empty()).orElseThrow();
  }

  /** Some pages in a module, each of other words. */
  private static List<Item> shell(Random random, String prefix) {
    List<Item> all = new ArrayList<>();
    all.add(item(prefix + "m", null, 0, "Week 1", new Content.Module()));
    int n = 3 + random.nextInt(6);
    for (int i = 0; i < n; i++) {
      StringBuilder text = new StringBuilder(WORDS[i]);
      for (int w = 0; w < 12; w++) {
        text.append(' ').append(WORDS[(i * 5 + w * (i + 1)) % WORDS.length]).append(i);
      }
      all.add(page(prefix + i, prefix + "m", i, text.toString()));
    }
    return all;
  }

  private static Item under(Item i, String prefix) {
    Optional<String> parent = i.place().parent().map(p -> prefix + p);
    return new Item(
        new ItemKey(prefix + i.key().value()),
        i.title(),
        i.content(),
        i.timing(),
        new Place(parent, i.place().rank()),
        i.visibility(),
        i.rule());
  }

  @Test
  void whateverThePlatformCallsThemTheSameItemsAreAsTheyWereKnown() {
    Laws.hold(
        random -> {
          List<Item> known = shell(random, "k");
          Exported e = read(known, known.stream().map(i -> under(i, "other")).toList());
          assertThat(e.items()).containsExactlyInAnyOrderElementsOf(known);
          assertThat(e.changed()).isEmpty();
          assertThat(e.gone()).isEmpty();
          assertThat(e.fresh()).isEmpty();
        });
  }

  @Test
  void whatWasChangedIsReadAndWhatIsNewOrGoneIsTold() {
    Laws.hold(
        random -> {
          List<Item> known = shell(random, "k");
          List<Item> there = new ArrayList<>(known.stream().map(i -> under(i, "x")).toList());
          Item first = there.get(1);
          String changed = first.content().html().replace("</p>", " ours</p>");
          there.set(1, item("xk0", "xkm", 0, first.title(), new Content.Page(changed)));
          there.remove(there.size() - 1);
          there.add(page("fresh", "xkm", 9, "torch batteries spare drawer under desk"));
          Exported e = read(known, there);
          assertThat(e.changed()).containsExactly(new ItemKey("k0"));
          assertThat(e.items())
              .filteredOn(i -> i.key().equals(new ItemKey("k0")))
              .extracting(i -> i.content().html())
              .containsExactly(changed);
          assertThat(e.gone()).containsExactly(known.get(known.size() - 1).key());
          assertThat(e.fresh()).containsExactly(new ItemKey("fresh"));
          assertThat(e.items())
              .filteredOn(i -> i.key().equals(new ItemKey("fresh")))
              .extracting(i -> i.place().parent())
              .containsExactly(Optional.of("km"));
        });
  }

  @Test
  void whatNoPackageCanSayStaysAsItWasKnown() {
    Item rubric = item("r", "km", 7, "Rubric", new Content.Rubric(List.of()));
    List<Item> known = new ArrayList<>(shell(new Random(1), "k"));
    List<Item> there = known.stream().map(i -> under(i, "x")).toList();
    known.add(rubric);
    assertThat(read(known, there).items()).contains(rubric);
    assertThat(read(known, there).gone()).isEmpty();
  }

  @Test
  void thePackageOfAnotherShellIsNotTakenForThisOne() {
    List<Item> other = new ArrayList<>();
    for (int i = 0; i < 6; i++) {
      other.add(page("o" + i, null, i, "sewing hem thread " + i + " cotton wool needle pin " + i));
    }
    assertThat(Exported.of(shell(new Random(2), "k"), other, i -> Optional.empty())).isEmpty();
  }
}
