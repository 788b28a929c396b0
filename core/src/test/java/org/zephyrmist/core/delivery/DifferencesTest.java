package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Kind;

class DifferencesTest {
  @Test
  void aShellDiffersInNothingFromItself() {
    Laws.hold(
        random -> {
          List<Held> shell = List.copyOf(new World(random.nextLong()).shell.values());
          assertThat(Differences.between(shell, shell))
              .isEqualTo(new Differences(List.of(), List.of(), List.of()));
        });
  }

  @Test
  void whatIsMissingOneWayIsSurplusTheOther() {
    Laws.hold(
        random -> {
          List<Held> one = List.copyOf(new World(random.nextLong()).shell.values());
          List<Held> other = List.copyOf(new World(random.nextLong()).shell.values());
          Differences there = Differences.between(one, other);
          Differences back = Differences.between(other, one);
          assertThat(there.missing()).isEqualTo(back.surplus());
          assertThat(there.different()).hasSameSizeAs(back.different());
        });
  }

  @Test
  void whatDiffersIsToldByAspect() {
    Held h = new Held("p", Kind.PAGE, "P", Optional.empty(), new World(3).any(), false, true);
    Held moved = h.with(h.aspects().with(Aspect.TIMING, Fingerprint.of("another day")));
    assertThat(Differences.between(List.of(h), List.of(moved)).different())
        .singleElement()
        .satisfies(d -> assertThat(d.aspects()).containsExactly(Aspect.TIMING));
  }
}
