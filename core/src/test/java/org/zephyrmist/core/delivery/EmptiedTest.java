package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.tree.Node;

class EmptiedTest {
  private static Map<ItemKey, Base> bases(int n) {
    Map<ItemKey, Base> all = new LinkedHashMap<>();
    for (int i = 0; i < n; i++) {
      ItemKey k = new ItemKey("k" + i);
      Fingerprints f = Sample.all("k" + i);
      all.put(k, new Base(k, Kind.PAGE, "k" + i, "p" + i, f, f));
    }
    return all;
  }

  private static boolean emptied(int given, int left) {
    return Emptied.is(bases(given).values(), b -> Integer.parseInt(b.id().substring(1)) < left);
  }

  @Test
  void allOrNearlyAllIsGone() {
    assertThat(emptied(20, 0)).isTrue();
    assertThat(emptied(20, 2)).isTrue();
    assertThat(emptied(20, 3)).isFalse();
  }

  @Test
  void ofTwoItemsItCannotBeTold() {
    assertThat(emptied(2, 0)).isFalse();
    assertThat(emptied(3, 0)).isTrue();
    assertThat(emptied(0, 0)).isFalse();
  }

  private static List<Step> plan(Choices choices) {
    List<Node> version =
        List.of(
            Sample.page("k0"),
            Sample.node(
                new ItemKey("k1"),
                Kind.PAGE,
                "k1",
                EditRule.FIXED,
                false,
                Optional.empty(),
                Sample.all("k1")),
            Sample.page("k2"),
            Sample.page("new"));
    Map<ItemKey, Base> given = Emptied.counting(bases(3), b -> false, choices, true);
    return Planner.plan(Sample.meant(version), List.of(), given, choices, true, Alongside.NOTHING);
  }

  @Test
  void nothingIsDoneInAnEmptiedShellUntilAPersonSaysSo() {
    assertThat(plan(Choices.SAFE))
        .allMatch(s -> s.kind() == StepKind.KEEP && s.reason() == Step.Reason.EMPTIED)
        .hasSize(4);
  }

  @Test
  void anewMeansAllOfItStartersAndFixedAlike() {
    assertThat(plan(Choices.SAFE.with(Choices.EmptiedShell.ANEW)))
        .allMatch(s -> s.kind() == StepKind.ADD)
        .hasSize(4);
  }
}
