package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Decisions.About;
import org.zephyrmist.core.delivery.Decisions.Decision;
import org.zephyrmist.core.delivery.Decisions.Take;
import org.zephyrmist.core.delivery.Step.AspectStep;

class DecisionsTest {
  private static final ItemKey KEY = new ItemKey("loads");
  private static final Fingerprint BOTH = Fingerprint.of("the new text and theirs");
  private static final About ALL = new About(KEY, Optional.empty());

  private static Fingerprints wording(String text) {
    return Sample.aspects(Map.of(Aspect.WORDING, text), "same");
  }

  private static Step planned(EditRule rule, String here, boolean work, Map<About, Decision> made) {
    Fingerprints old = wording("old");
    return Planner.plan(
            Sample.meant(
                List.of(
                    Sample.node(
                        KEY, Kind.PAGE, "Loads", rule, false, Optional.empty(), wording("new")))),
            List.of(
                new Held("p", Kind.PAGE, "Loads", Optional.empty(), wording(here), work, false)),
            Map.of(KEY, new Base(KEY, Kind.PAGE, "Loads", "p", old, old)),
            Choices.SAFE.with(new Decisions(made)))
        .get(0);
  }

  private static About only(String here) {
    return new About(
        KEY, Optional.of(Decisions.alike(Set.of(Aspect.WORDING), wording(here), wording("new"))));
  }

  @Test
  void takingBothWritesWhatTheyBecomeAndIsStillAClash() {
    Step s =
        planned(
            EditRule.ADAPTABLE,
            "mine",
            false,
            Map.of(only("mine"), new Decision(Take.TOGETHER, Optional.of(BOTH))));
    assertThat(s.kind()).isEqualTo(StepKind.CLASH);
    assertThat(s.aspects()).containsEntry(Aspect.WORDING, AspectStep.CLASH_TOGETHER);
    assertThat(s.sides().becomes().orElseThrow().get(Aspect.WORDING)).isEqualTo(BOTH);
    assertThat(s.overwrites()).isTrue();
  }

  @Test
  void theNarrowerDecisionCounts() {
    Map<About, Decision> made =
        Map.of(ALL, Decision.of(Take.VERSION), only("mine"), Decision.of(Take.SECTION));
    assertThat(planned(EditRule.ADAPTABLE, "mine", false, made).moves()).isFalse();
    assertThat(planned(EditRule.ADAPTABLE, "another’s", false, made).moves()).isTrue();
  }

  @Test
  void aTextThatChangedSinceIsNotTheOneThatWasDecided() {
    Map<About, Decision> made = Map.of(only("mine"), Decision.of(Take.VERSION));
    assertThat(planned(EditRule.ADAPTABLE, "mine", false, made).moves()).isTrue();
    assertThat(planned(EditRule.ADAPTABLE, "mine, and more", false, made).aspects())
        .containsEntry(Aspect.WORDING, AspectStep.CLASH_KEPT);
  }

  @Test
  void whatMustEqualTheMasterIsNotDecidedOtherwise() {
    Map<About, Decision> made = Map.of(ALL, Decision.of(Take.SECTION));
    assertThat(planned(EditRule.FIXED, "mine", false, made).moves()).isTrue();
  }

  @Test
  void aTwinIsDecidedAlone() {
    for (Take take : List.of(Take.ADOPT, Take.ADD, Take.LEAVE)) {
      Step s =
          Planner.plan(
                  Sample.meant(List.of(Sample.page("loads"))),
                  List.of(
                      new Held(
                          "p", Kind.PAGE, "loads", Optional.empty(), wording("t"), false, true)),
                  Map.of(),
                  Choices.SAFE.with(new Decisions(Map.of(ALL, Decision.of(take)))))
              .get(0);
      assertThat(s.kind()).isEqualTo(take == Take.ADD ? StepKind.ADD : StepKind.TWIN);
      assertThat(s.adopts()).isEqualTo(take == Take.ADOPT);
    }
  }

  @Test
  void whatOneSectionSaysIsNeverWrittenIntoAllOthers() {
    Map<About, Decision> made = Map.of(ALL, new Decision(Take.TOGETHER, Optional.of(BOTH)));
    assertThat(planned(EditRule.ADAPTABLE, "another’s", false, made).moves()).isFalse();
  }

  @Test
  void aTextGoesWithTakingBothAlone() {
    assertThatThrownBy(() -> new Decision(Take.VERSION, Optional.of(BOTH)))
        .isInstanceOf(IllegalArgumentException.class);
  }
}
