package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.tree.Node;

/** From where the next comparison starts. */
class BaseTest {
  private static final ItemKey KEY = new ItemKey("k");

  private static Fingerprints with(Fingerprints f, Aspect a, String form) {
    return f.with(a, Fingerprint.of(form));
  }

  private static Node meant(Fingerprints f) {
    return Sample.node(KEY, Kind.PAGE, "K", EditRule.ADAPTABLE, false, Optional.empty(), f);
  }

  private static Held held(Fingerprints f) {
    return new Held("p", Kind.PAGE, "K", Optional.empty(), f, false, true);
  }

  private static Base base(Fingerprints f) {
    return new Base(KEY, Kind.PAGE, "K", "p", f, f);
  }

  private static Step plan(Node m, Held s, Base b) {
    return Planner.plan(Sample.meant(List.of(m)), List.of(s), Map.of(KEY, b), Choices.SAFE).get(0);
  }

  @Test
  void whatWasWrittenStartsFromWhatTheShellShowsNow() {
    Fingerprints old = Sample.all("old");
    Node m = meant(with(old, Aspect.WORDING, "new"));
    Step step = plan(m, held(old), base(old));
    Base after = base(old).after(step, with(old, Aspect.WORDING, "new, tidied"));
    assertThat(after.sent()).isEqualTo(m.aspects());
    assertThat(after.shown()).isEqualTo(with(old, Aspect.WORDING, "new, tidied"));
  }

  @Test
  void aKeptChangeStaysAChange() {
    Fingerprints old = Sample.all("old");
    Fingerprints here = with(old, Aspect.TIMING, "friday");
    Base after = base(old).after(plan(meant(old), held(here), base(old)), here);
    assertThat(after.shown().differing(here)).containsExactly(Aspect.TIMING);
  }

  @Test
  void aKeptClashIsDecidedButStaysAChange() {
    Fingerprints old = Sample.all("old");
    Fingerprints here = with(old, Aspect.WORDING, "mine");
    Node m = meant(with(old, Aspect.WORDING, "new"));
    Base after = base(old).after(plan(m, held(here), base(old)), here);
    assertThat(plan(m, held(here), after).kind()).isEqualTo(StepKind.KEEP);
    assertThat(after.shown().differing(here)).containsExactly(Aspect.WORDING);
  }

  @Test
  void aSectionThatMadeTheSameCorrectionIsNoLongerChanged() {
    Fingerprints old = Sample.all("old");
    Fingerprints corrected = with(old, Aspect.WORDING, "new");
    Node m = meant(corrected);
    Base after = base(old).after(plan(m, held(corrected), base(old)), corrected);
    assertThat(after.shown()).isEqualTo(corrected);
  }

  @Test
  void anAdoptedTwinCountsAsChangedInItsTextButNotInItsPlaceDatesAndVisibility() {
    Fingerprints here = Sample.all("theirs");
    Step step =
        Planner.plan(
                Sample.meant(List.of(meant(Sample.all("ours")))),
                List.of(held(here)),
                Map.of(),
                Choices.SAFE)
            .get(0);
    Base adopted = Base.adopted(step, held(here));
    assertThat(adopted.shown().differing(here))
        .containsExactlyInAnyOrder(Aspect.WORDING, Aspect.GRADING, Aspect.LAUNCH);
  }
}
