package org.zephyrmist.core.merge;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;

class BesideTest {
  @Test
  void whatChangedStandsBesideWhatItBecame() {
    List<Beside> all =
        Beside.of(
            "<p>First.</p><p>A circuit of 20 amperes.</p><p>Gone.</p><p>Last.</p>",
            "<p>First.</p><p>A circuit of 15 amperes.</p><p>Last.</p><p>New.</p>");
    assertThat(all).extracting(Beside::same).containsExactly(true, false, false, true, false);
    assertThat(all.get(1).after().orElseThrow().words())
        .contains(new Runs.Run(Runs.Whose.THEIRS, "15 "));
    assertThat(all.get(2).after()).isEmpty();
    assertThat(all.get(4).before()).isEmpty();
  }

  @Test
  void bothTextsStandWholeOnTheirSides() {
    Laws.hold(
        r -> {
          String a = Laws.text(r, 6, "<p>one</p>", "<p>two</p>", "<ul><li>x</li></ul>");
          String b = Laws.text(r, 6, "<p>one</p>", "<p>2</p>", "<ul><li>x</li></ul>");
          List<Beside> all = Beside.of(a, b);
          assertThat(joined(all.stream().flatMap(x -> x.before().stream()).toList())).isEqualTo(a);
          assertThat(joined(all.stream().flatMap(x -> x.after().stream()).toList())).isEqualTo(b);
        });
  }

  private static String joined(List<Beside.Block> blocks) {
    return blocks.stream().map(Beside.Block::html).collect(Collectors.joining());
  }
}
