package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.TakeBack.Done;

/** A delivery that is taken back. */
class TakeBackTest {
  private static final Choices CHOICES =
      new Choices(
          Choices.Clash.KEEP_SECTION,
          Choices.Twin.ADD,
          Choices.Arrival.AS_IN_MASTER,
          Choices.Dates.ALONG);

  /** A delivery carried out in a drawn section, and what takes it back. */
  private static final class Delivered {
    final World w;
    final Map<ItemKey, Base> basesBefore;
    final List<String> shellBefore;
    final Map<ItemKey, Optional<Fingerprints>> heldBefore;
    final TakeBack back;

    Delivered(long seed) {
      w = new World(seed);
      basesBefore = new TreeMap<>(w.bases);
      shellBefore = contents(w);
      heldBefore = w.held();
      List<Step> steps = w.plan();
      w.apply(steps);
      List<Done> done = new ArrayList<>();
      for (Step s : steps) {
        Optional<Base> before = Optional.ofNullable(basesBefore.get(s.key()));
        boolean noted = !before.equals(Optional.ofNullable(w.bases.get(s.key())));
        if (s.moves() || noted) {
          done.add(new Done(s.key(), Optional.of(s), before, Optional.empty()));
        }
      }
      back = new TakeBack(done);
    }

    List<Step> plan() {
      List<Held> shell = List.copyOf(w.shell.values());
      Map<ItemKey, Base> bases = back.concerned(w.bases, shell);
      return back.plan(back.meant(shell, bases), shell, bases, CHOICES, Set.of());
    }

    void take(List<Step> steps) {
      for (Step s : steps) {
        Optional<Base> old = Optional.ofNullable(w.bases.get(s.key()));
        Optional<Held> now = w.write(s);
        back.noted(s, Receipt.of(s, now, true, old), old).ifPresent(w::keep);
      }
    }

    static List<String> contents(World w) {
      return w.shell.values().stream().map(h -> h.kind() + " " + h.aspects()).sorted().toList();
    }
  }

  @Test
  void theShellHoldsWhatItHeldBefore() {
    Laws.hold(
        random -> {
          Delivered d = new Delivered(random.nextLong());
          d.take(d.plan());
          assertThat(Delivered.contents(d.w)).isEqualTo(d.shellBefore);
        });
  }

  @Test
  void theLedgerSaysWhatItSaidBefore() {
    Laws.hold(
        random -> {
          Delivered d = new Delivered(random.nextLong());
          d.take(d.plan());
          assertThat(d.w.bases.keySet()).isEqualTo(d.basesBefore.keySet());
          d.basesBefore.forEach(
              (k, b) -> {
                assertThat(d.w.bases.get(k).sent()).isEqualTo(b.sent());
                assertThat(d.w.bases.get(k).shown()).isEqualTo(b.shown());
              });
          assertThat(d.w.held()).isEqualTo(d.heldBefore);
        });
  }

  @Test
  void takenBackTwiceNothingMoves() {
    Laws.hold(
        random -> {
          Delivered d = new Delivered(random.nextLong());
          d.take(d.plan().stream().filter(s -> !s.key().value().startsWith("own.")).toList());
          assertThat(d.plan().stream().filter(s -> !s.key().value().startsWith("own.")))
              .noneMatch(Step::moves);
        });
  }

  @Test
  void whatWasChangedSinceIsKept() {
    Laws.hold(
        random -> {
          Delivered d = new Delivered(random.nextLong());
          Map<String, Fingerprint> changed = new LinkedHashMap<>();
          for (Held h : List.copyOf(d.w.shell.values())) {
            if (random.nextInt(3) == 0) {
              Fingerprint mine = Fingerprint.of("changed since");
              d.w.shell.put(h.id(), h.with(h.aspects().with(Aspect.WORDING, mine)));
              changed.put(h.id(), mine);
            }
          }
          d.take(d.plan());
          changed.forEach(
              (id, mine) ->
                  assertThat(d.w.shell.get(id).aspects().get(Aspect.WORDING)).isEqualTo(mine));
        });
  }

  @Test
  void whatStudentsHandedInSinceStaysWithItsGrading() {
    Laws.hold(
        random -> {
          Delivered d = new Delivered(random.nextLong());
          Map<String, Fingerprint> graded = new LinkedHashMap<>();
          for (Held h : List.copyOf(d.w.shell.values())) {
            if (random.nextBoolean()) {
              graded.put(h.id(), h.aspects().get(Aspect.GRADING));
              d.w.shell.put(
                  h.id(),
                  new Held(h.id(), h.kind(), h.title(), h.parent(), h.aspects(), true, h.free()));
            }
          }
          d.take(d.plan());
          graded.forEach(
              (id, g) -> assertThat(d.w.shell.get(id).aspects().get(Aspect.GRADING)).isEqualTo(g));
        });
  }

  @Test
  void brokenOffAndSettledItEndsAsIfItHadNot() {
    Laws.hold(
        random -> {
          long seed = random.nextLong();
          Delivered whole = new Delivered(seed);
          whole.take(whole.plan());
          Delivered broken = new Delivered(seed);
          Set<ItemKey> written =
              broken.plan().stream()
                  .filter(Step::moves)
                  .filter(s -> random.nextBoolean())
                  .map(Step::key)
                  .collect(Collectors.toSet());
          broken.take(broken.plan().stream().filter(s -> written.contains(s.key())).toList());
          broken.take(
              broken.plan().stream()
                  .filter(s -> !written.contains(s.key()) || !s.moves())
                  .toList());
          assertThat(Delivered.contents(broken.w)).isEqualTo(Delivered.contents(whole.w));
          assertThat(broken.w.held()).isEqualTo(whole.w.held());
        });
  }

  @Test
  void whatWasSettledBeforeItsLinksCouldBeWrittenIsWrittenAgain() {
    Laws.hold(
        random -> {
          Delivered d = new Delivered(random.nextLong());
          for (Step s : d.plan()) {
            boolean back =
                s.kind() == StepKind.UPDATE
                    && s.writes().contains(Aspect.WORDING)
                    && d.basesBefore.containsKey(s.key())
                    && s.id().filter(d.basesBefore.get(s.key()).id()::equals).isPresent();
            if (back) {
              Optional<Base> old = Optional.ofNullable(d.w.bases.get(s.key()));
              Optional<Held> now = d.w.write(s);
              Held torn =
                  now.orElseThrow()
                      .with(
                          now.orElseThrow()
                              .aspects()
                              .with(Aspect.WORDING, Fingerprint.of("links missing")));
              d.w.shell.put(torn.id(), torn);
              Optional<Receipt> settled =
                  Receipt.settled(s, Optional.of(torn), true, old, Set.of(Aspect.WORDING));
              d.back.noted(s, settled, old).ifPresent(d.w::keep);
              assertThat(d.plan())
                  .filteredOn(x -> x.key().equals(s.key()))
                  .allMatch(x -> x.writes().contains(Aspect.WORDING));
              return;
            }
          }
        });
  }

  @Test
  void modulesThatWouldStandInEachOtherStandAtTheTop() {
    ItemKey a = new ItemKey("a");
    ItemKey b = new ItemKey("b");
    Delivered d = new Delivered(1);
    Step gone =
        new Step(
            a,
            org.zephyrmist.core.content.Kind.MODULE,
            "A",
            StepKind.RETIRE,
            Optional.of("p"),
            Map.of(),
            Set.of(),
            Step.Reason.CLEARED,
            new Sides(
                Optional.empty(), Optional.of(d.w.any()), Optional.empty(), Optional.empty()));
    TakeBack back =
        new TakeBack(
            List.of(
                new Done(a, Optional.of(gone), Optional.empty(), Optional.of(b)),
                new Done(b, Optional.of(gone), Optional.empty(), Optional.of(a))));
    assertThat(back.meant(List.of(), Map.of()).items().size()).isEqualTo(2);
  }
}
