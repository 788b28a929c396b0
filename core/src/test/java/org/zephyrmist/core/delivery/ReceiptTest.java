package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

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
import org.zephyrmist.core.tree.Node;

/** What is noted of a step that is done. */
class ReceiptTest {
  private static final ItemKey KEY = new ItemKey("k");
  private static final Fingerprints OLD = Sample.all("old");
  private static final Fingerprints NEW = OLD.with(Aspect.WORDING, Fingerprint.of("new"));
  private static final Base BASE = new Base(KEY, Kind.PAGE, "K", "p", OLD, OLD);

  private static Held held(Fingerprints f) {
    return new Held("p", Kind.PAGE, "K", Optional.empty(), f, false, true);
  }

  private static Step step(Fingerprints meant, List<Held> shell, Map<ItemKey, Base> bases) {
    Node m = Sample.node(KEY, Kind.PAGE, "K", EditRule.ADAPTABLE, false, Optional.empty(), meant);
    return Planner.plan(Sample.meant(List.of(m)), shell, bases, Choices.SAFE).get(0);
  }

  private static Step update() {
    return step(NEW, List.of(held(OLD)), Map.of(KEY, BASE));
  }

  @Test
  void whatThePlatformTidiedIsTheBaseAndWhatWeSentIsRemembered() {
    Fingerprints tidied = NEW.with(Aspect.WORDING, Fingerprint.of("new, tidied"));
    Step add = step(NEW, List.of(), Map.of());
    Receipt r = Receipt.of(add, Optional.of(held(tidied)), true, Optional.empty()).get();
    assertThat(r.how()).isEqualTo(Receipt.How.ADDED);
    assertThat(r.base().sent()).isEqualTo(NEW);
    assertThat(r.base().shown()).isEqualTo(tidied);
  }

  @Test
  void whatTheShellDoesNotShowHasNotComeAndHasNoReceipt() {
    assertThat(Receipt.of(update(), Optional.empty(), true, Optional.of(BASE))).isEmpty();
  }

  @Test
  void aStepThatMovesNothingHasNoReceipt() {
    Step same = step(OLD, List.of(held(OLD)), Map.of(KEY, BASE));
    assertThat(Receipt.of(same, Optional.of(held(OLD)), true, Optional.of(BASE))).isEmpty();
  }

  @Test
  void whatSomebodyChangedRightAfterOurWriteStaysTheirs() {
    Fingerprints theirs = NEW.with(Aspect.WORDING, Fingerprint.of("theirs"));
    Optional<Held> now = Optional.of(held(theirs));
    Receipt r = Receipt.of(update(), now, false, Optional.of(BASE)).get();
    assertThat(r.base().shown().differing(theirs)).containsExactly(Aspect.WORDING);
  }

  @Test
  void aTextWithUnfinishedLinksIsWrittenAgainByTheNextPlan() {
    Receipt r = Receipt.of(update(), Optional.of(held(NEW)), true, Optional.of(BASE)).get();
    assertThat(step(NEW, List.of(held(NEW)), Map.of(KEY, r.base())).moves()).isFalse();
    Fingerprints halfLinked = NEW.with(Aspect.WORDING, Fingerprint.of("new, without its links"));
    Base half =
        Receipt.settled(
                update(),
                Optional.of(held(halfLinked)),
                true,
                Optional.of(BASE),
                Set.of(Aspect.WORDING))
            .get()
            .base();
    assertThat(step(NEW, List.of(held(halfLinked)), Map.of(KEY, half)).writes())
        .containsExactly(Aspect.WORDING);
  }

  @Test
  void aMergedTextThatNoVersionHoldsIsTheBaseAndIsNotAskedAgain() {
    Fingerprints here = OLD.with(Aspect.WORDING, Fingerprint.of("theirs"));
    Fingerprints merged = OLD.with(Aspect.WORDING, Fingerprint.of("new and theirs"));
    Step clash = step(NEW, List.of(held(here)), Map.of(KEY, BASE));
    Step decided =
        new Step(
            KEY,
            Kind.PAGE,
            "K",
            StepKind.CLASH,
            clash.id(),
            clash.aspects(),
            Set.of(Aspect.WORDING),
            clash.reason(),
            new Sides(
                clash.sides().base(),
                clash.sides().here(),
                clash.sides().version(),
                Optional.of(merged)));
    Base after =
        Receipt.of(decided, Optional.of(held(merged)), true, Optional.of(BASE)).get().base();
    assertThat(after.shown()).isEqualTo(merged);
    assertThat(step(NEW, List.of(held(merged)), Map.of(KEY, after)).kind())
        .isEqualTo(StepKind.SAME);
  }
}
