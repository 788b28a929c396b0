package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.tree.Node;

/** Laws that hold for any version, shell, history and choice. */
class PlannerPropertyTest {
  @Test
  void theSameInputGivesTheSamePlan() {
    Laws.hold(
        random -> {
          long seed = random.nextLong();
          assertThat(new World(seed).plan()).isEqualTo(new World(seed).plan());
        });
  }

  @Test
  void afterAPlanIsCarriedOutNothingMoves() {
    Laws.hold(
        random -> {
          long seed = random.nextLong();
          World w = new World(seed);
          boolean emptied = w.emptied();
          w.apply(w.plan(emptied));
          assertThat(w.plan(emptied).stream().filter(Step::moves)).isEmpty();
        });
  }

  @Test
  void withoutFixedItemsNothingOfTheSectionsOwnIsTouched() {
    Laws.hold(
        random -> {
          long seed = random.nextLong();
          World w = new World(seed);
          Map<String, Held> own = new LinkedHashMap<>(w.shell);
          w.bases.values().forEach(b -> own.remove(b.id()));
          boolean someFixed =
              w.version.stream()
                  .anyMatch(m -> m.rule() == EditRule.FIXED || m.visibility().instructorsOnly());
          if (someFixed
              || w.choices.onto() == Choices.Onto.CLEAN
              || w.version.stream()
                  .anyMatch(m -> w.choices.clash(m.kind()) == Choices.Clash.PUT_BACK)) {
            return;
          }
          w.apply(w.plan());
          assertThat(w.shell).containsAllEntriesOf(own);
        });
  }

  @Test
  void datesThatAreLeftStayWhateverTheVersionSays() {
    Laws.hold(
        random -> {
          World w = new World(random.nextLong());
          Map<String, Held> before = new LinkedHashMap<>(w.shell);
          w.apply(w.plan());
          if (w.choices.dates() != Choices.Dates.ALONG && w.choices.onto() != Choices.Onto.CLEAN) {
            w.shell.values().stream()
                .filter(h -> before.containsKey(h.id()))
                .forEach(
                    h ->
                        assertThat(h.aspects().get(Aspect.TIMING))
                            .isEqualTo(before.get(h.id()).aspects().get(Aspect.TIMING)));
          }
        });
  }

  @Test
  void studentWorkIsNeverRemovedNorItsGradingChanged() {
    Laws.hold(
        random -> {
          long seed = random.nextLong();
          World w = new World(seed);
          Map<String, Held> before = new LinkedHashMap<>(w.shell);
          w.apply(w.plan());
          before.values().stream()
              .filter(Held::studentWork)
              .forEach(
                  h ->
                      assertThat(w.shell.get(h.id()).aspects().get(Aspect.GRADING))
                          .isEqualTo(h.aspects().get(Aspect.GRADING)));
        });
  }

  @Test
  void whatWasAcceptedStaysUnlessItIsFixed() {
    Laws.hold(
        random -> {
          World w = new World(random.nextLong());
          w.choices = w.choices.with(Choices.Onto.UP_TO_DATE);
          Map<String, Fingerprint> accepted = new LinkedHashMap<>();
          for (Node m : w.version) {
            Base b = w.bases.get(m.key());
            if (b != null && m.rule() != EditRule.FIXED && w.shell.containsKey(b.id())) {
              b.accepted().forEach(a -> accepted.put(b.id(), w.shell.get(b.id()).aspects().get(a)));
            }
          }
          w.apply(w.plan());
          accepted.forEach(
              (id, own) ->
                  assertThat(w.shell.get(id).aspects().get(Aspect.WORDING)).isEqualTo(own));
        });
  }

  @Test
  void whereThingsArePutBackOnlyStartersAndTheAcceptedDiffer() {
    Laws.hold(
        random -> {
          World w = new World(random.nextLong());
          w.choices =
              new Choices(
                      Choices.Clash.PUT_BACK,
                      Choices.Twin.ADOPT,
                      Choices.Arrival.AS_IN_MASTER,
                      Choices.Dates.ALONG)
                  .with(Choices.EmptiedShell.ANEW);
          List<Step> steps = w.plan();
          w.apply(steps);
          for (Step s : steps) {
            Node m =
                w.version.stream().filter(n -> n.key().equals(s.key())).findFirst().orElse(null);
            Base b = w.bases.get(s.key());
            if (m != null
                && b != null
                && m.rule() == EditRule.ADAPTABLE
                && m.kind() != Kind.MODULE
                && b.accepted().isEmpty()
                && s.kind() != StepKind.BLOCKED
                && s.kind() != StepKind.TWIN) {
              assertThat(w.shell.get(b.id()).aspects()).isEqualTo(b.shown());
            }
          }
        });
  }

  @Test
  void aCleanStartLeavesNothingButTheVersion() {
    Laws.hold(
        random -> {
          World w = new World(random.nextLong());
          w.choices = w.choices.with(Choices.Onto.CLEAN);
          Map<String, Held> before = new LinkedHashMap<>(w.shell);
          List<Step> steps = w.plan();
          w.apply(steps);
          if (before.values().stream().anyMatch(Held::studentWork)) {
            assertThat(w.shell).isEqualTo(before);
            assertThat(steps).anyMatch(s -> s.kind() == StepKind.BLOCKED);
          } else {
            Set<String> meant =
                w.bases.values().stream()
                    .filter(b -> Sample.meant(w.version).items().has(b.key()))
                    .map(Base::id)
                    .collect(Collectors.toSet());
            w.shell.keySet().stream().filter(id -> id.startsWith("other")).forEach(meant::add);
            assertThat(meant).containsAll(w.shell.keySet());
          }
        });
  }

  @Test
  void everyItemOfTheVersionHasOneStepAtTheMost() {
    Laws.hold(
        random -> {
          long seed = random.nextLong();
          assertThat(new World(seed).plan()).extracting(Step::key).doesNotHaveDuplicates();
        });
  }

  @Test
  void aClashIsAskedOnce() {
    Laws.hold(
        random -> {
          long seed = random.nextLong();
          World w = new World(seed);
          boolean emptied = w.emptied();
          w.apply(w.plan(emptied));
          assertThat(w.plan(emptied)).noneMatch(s -> s.kind() == StepKind.CLASH);
        });
  }

  @Test
  void whatIsForInstructorsOnlyIsHiddenAsTheVersionSaysWhateverElseIsKept() {
    Laws.hold(
        random -> {
          World w = new World(random.nextLong());
          w.apply(w.plan());
          for (Node m : w.version) {
            Base b = w.bases.get(m.key());
            Held h = b == null ? null : w.shell.get(b.id());
            boolean blocked =
                w.plan().stream()
                    .anyMatch(
                        s ->
                            s.reason() == Step.Reason.EMPTIED
                                || s.reason() == Step.Reason.NOT_CLEARED
                                || s.key().equals(m.key()) && s.kind() == StepKind.BLOCKED);
            if (m.visibility().instructorsOnly() && h != null && !blocked) {
              assertThat(h.aspects().get(Aspect.VISIBILITY))
                  .isEqualTo(m.aspects().get(Aspect.VISIBILITY));
            }
          }
        });
  }

  @Test
  void whatARunAndASettlementEnterForAStepIsEqual() {
    Laws.hold(
        random -> {
          World w = new World(random.nextLong());
          for (Step s : w.plan()) {
            Optional<Base> old = Optional.ofNullable(w.bases.get(s.key()));
            Optional<Held> now = w.write(s);
            assertThat(Receipt.settled(s, now, true, old, Set.of()))
                .isEqualTo(Receipt.of(s, now, true, old));
          }
        });
  }

  @Test
  void aDeliveryThatBrokeOffEndsAsIfItHadNot() {
    Laws.hold(
        random -> {
          long seed = random.nextLong();
          World whole = new World(seed);
          whole.apply(whole.plan());
          World broken = new World(seed);
          boolean emptied = broken.emptied();
          broken.breakOffAndSettle(broken.plan(emptied));
          broken.apply(broken.plan(emptied));
          assertThat(broken.held()).isEqualTo(whole.held());
          assertThat(broken.plan(emptied).stream().filter(Step::moves)).isEmpty();
        });
  }

  @Test
  void whatIsWrittenIsWhatTheItemBecomesAndTheRestIsTheSections() {
    Laws.hold(
        random -> {
          World w = new World(random.nextLong());
          for (Step s : w.plan()) {
            Sides sides = s.sides();
            for (Aspect a : Aspect.values()) {
              boolean written = s.writes().contains(a);
              Optional<Fingerprints> from =
                  written
                      ? sides.version()
                      : s.kind() == StepKind.RETIRE ? Optional.empty() : sides.here();
              boolean dateless =
                  a == Aspect.TIMING
                      && s.kind() == StepKind.ADD
                      && w.choices.dates() == Choices.Dates.AWAY;
              boolean merged = written && s.aspects().containsKey(a) && s.aspects().get(a).merges();
              if (merged) {
                assertThat(sides.becomes().orElseThrow().get(a))
                    .isNotIn(
                        sides.version().orElseThrow().get(a), sides.here().orElseThrow().get(a));
                continue;
              }
              Optional<Fingerprint> meant = from.map(f -> f.get(a));
              assertThat(sides.becomes().map(f -> f.get(a)))
                  .isEqualTo(dateless ? Optional.of(Fingerprint.of(Choices.NO_DATES)) : meant);
            }
          }
        });
  }
}
