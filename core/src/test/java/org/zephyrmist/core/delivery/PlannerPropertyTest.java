package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.tree.Node;

/** Laws that hold for any version, shell, history and choice. */
class PlannerPropertyTest {
  private static final Fingerprint TOGETHER = Fingerprint.of("both together");

  /** A section in memory that carries plans out as a platform would. */
  private static final class World {
    final Random random;
    final List<Node> version = new ArrayList<>();
    final Map<String, Held> shell = new LinkedHashMap<>();
    final Map<ItemKey, Base> bases = new LinkedHashMap<>();
    Choices choices;
    int next;

    World(long seed) {
      random = new Random(seed);
      choices =
          new Choices(
              pick(Choices.Clash.values()),
              pick(Choices.Twin.values()),
              Choices.Arrival.AS_IN_MASTER,
              pick(Choices.Dates.values()));
      int n = random.nextInt(12);
      for (int i = 0; i < n; i++) {
        ItemKey key = new ItemKey("k" + i);
        Kind kind = pick(Kind.PAGE, Kind.ASSIGNMENT, Kind.MODULE);
        Fingerprints m = any();
        if (random.nextInt(5) > 0) {
          version.add(
              Sample.node(
                  key,
                  kind,
                  "T" + random.nextInt(4),
                  pick(EditRule.values()),
                  random.nextInt(4) == 0,
                  Optional.empty(),
                  m));
        }
        if (random.nextBoolean()) {
          Fingerprints sent = random.nextBoolean() ? m : any();
          Fingerprints shown = random.nextBoolean() ? sent : any();
          String id = "p" + next++;
          bases.put(key, new Base(key, kind, "T", id, sent, shown));
          if (random.nextInt(4) > 0) {
            Fingerprints s = random.nextBoolean() ? shown : any();
            shell.put(
                id, new Held(id, kind, "T", Optional.empty(), s, random.nextInt(5) == 0, true));
          }
        }
      }
      Map<Decisions.About, Decisions.Decision> made = new LinkedHashMap<>();
      for (Node m : version) {
        Decisions.Take take = pick(Decisions.Take.values());
        if (random.nextBoolean()) {
          made.put(
              new Decisions.About(m.key(), Optional.empty()),
              new Decisions.Decision(
                  take,
                  take == Decisions.Take.TOGETHER ? Optional.of(TOGETHER) : Optional.empty()));
        }
      }
      choices = choices.with(new Decisions(made)).with(pick(Choices.EmptiedShell.values()));
      for (int i = random.nextInt(4); i > 0; i--) {
        String id = "own" + i;
        shell.put(
            id,
            new Held(
                id,
                pick(Kind.PAGE, Kind.ASSIGNMENT),
                "T" + random.nextInt(4),
                Optional.empty(),
                any(),
                false,
                true));
      }
    }

    @SafeVarargs
    final <T> T pick(T... all) {
      return all[random.nextInt(all.length)];
    }

    Fingerprints any() {
      EnumMap<Aspect, Fingerprint> map = new EnumMap<>(Aspect.class);
      for (Aspect a : Aspect.values()) {
        map.put(a, Fingerprint.of("v" + random.nextInt(2)));
      }
      return Fingerprints.of(map);
    }

    List<Step> plan() {
      return plan(emptied());
    }

    boolean emptied() {
      return Emptied.is(bases.values(), b -> shell.containsKey(b.id()));
    }

    /**
     * @param emptied as it was judged before anything was done
     */
    List<Step> plan(boolean emptied) {
      Map<ItemKey, Base> given =
          Emptied.counting(bases, b -> shell.containsKey(b.id()), choices, emptied);
      return Planner.plan(
          Sample.meant(version), List.copyOf(shell.values()), given, choices, emptied);
    }

    /** Writes a step into the shell; gives the item as it is then. */
    Optional<Held> write(Step s) {
      Optional<Held> now = s.id().map(shell::get);
      if (!s.moves()) {
        return now;
      }
      if (s.kind() == StepKind.RETIRE) {
        shell.remove(s.id().orElseThrow());
        return Optional.empty();
      }
      String id = s.id().orElseGet(() -> "p" + next++);
      Fingerprints f = s.sides().becomes().orElseThrow();
      boolean work = now.map(Held::studentWork).orElse(false);
      Held h = new Held(id, s.itemKind(), s.title(), Optional.empty(), f, work, true);
      shell.put(id, h);
      return Optional.of(h);
    }

    void apply(List<Step> steps) {
      steps.forEach(s -> receive(s, write(s)));
    }

    void receive(Step s, Optional<Held> now) {
      Receipt.of(s, now, true, Optional.ofNullable(bases.get(s.key()))).ifPresent(this::keep);
    }

    /** What a server did that died after some steps, and what settles it. */
    void breakOffAndSettle(List<Step> steps) {
      List<Step> sent =
          steps.stream().filter(Step::moves).filter(s -> random.nextBoolean()).toList();
      Map<ItemKey, Optional<Held>> now = new LinkedHashMap<>();
      sent.forEach(s -> now.put(s.key(), write(s)));
      for (Step s : sent) {
        Optional<Base> old = Optional.ofNullable(bases.get(s.key()));
        Receipt.settled(s, now.get(s.key()), true, old, Set.of()).ifPresent(this::keep);
      }
    }

    /** What the section holds of each item, whatever ids the platform gave. */
    Map<ItemKey, Optional<Fingerprints>> held() {
      Map<ItemKey, Optional<Fingerprints>> held = new TreeMap<>();
      bases.forEach(
          (k, b) -> held.put(k, Optional.ofNullable(shell.get(b.id())).map(Held::aspects)));
      return held;
    }

    void keep(Receipt r) {
      if (r.how() == Receipt.How.RETIRED) {
        bases.remove(r.base().key());
      } else {
        bases.put(r.base().key(), r.base());
      }
    }
  }

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
          assertThat(w.plan(emptied)).noneMatch(Step::moves);
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
          if (someFixed) {
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
          if (w.choices.dates() != Choices.Dates.ALONG) {
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
          assertThat(broken.plan(emptied)).noneMatch(Step::moves);
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
              if (s.aspects().get(a) == Step.AspectStep.CLASH_TOGETHER && written) {
                from = Optional.of(sides.becomes().orElseThrow().with(a, TOGETHER));
              }
              Optional<Fingerprint> meant = from.map(f -> f.get(a));
              assertThat(sides.becomes().map(f -> f.get(a)))
                  .isEqualTo(dateless ? Optional.of(Fingerprint.of(Choices.NO_DATES)) : meant);
            }
          }
        });
  }
}
