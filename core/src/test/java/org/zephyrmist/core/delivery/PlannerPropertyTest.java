package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;

/** Laws that hold for any version, shell, history and choice. */
class PlannerPropertyTest {
  /** A section in memory that carries plans out as a platform would. */
  private static final class World {
    final Random random;
    final List<Meant> version = new ArrayList<>();
    final Map<String, Held> shell = new LinkedHashMap<>();
    final Map<ItemKey, Base> bases = new LinkedHashMap<>();
    final Choices choices;
    int next;

    World(long seed) {
      random = new Random(seed);
      choices = new Choices(pick(Choices.Clash.values()), pick(Choices.Twin.values()));
      int n = random.nextInt(12);
      for (int i = 0; i < n; i++) {
        ItemKey key = new ItemKey("k" + i);
        Kind kind = pick(Kind.PAGE, Kind.ASSIGNMENT, Kind.MODULE);
        Fingerprints m = any();
        if (random.nextInt(5) > 0) {
          version.add(
              new Meant(
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
      return Planner.plan(version, List.copyOf(shell.values()), bases, choices);
    }

    /** Writes a step into the shell; gives the item as it is then. */
    Optional<Held> write(Step s, Optional<Fingerprints> meant) {
      Optional<Held> now = s.id().map(shell::get);
      if (!s.moves()) {
        return now;
      }
      if (s.kind() == StepKind.RETIRE) {
        shell.remove(s.id().orElseThrow());
        return Optional.empty();
      }
      String id = s.id().orElseGet(() -> "p" + next++);
      Fingerprints f = now.map(Held::aspects).orElseGet(meant::orElseThrow);
      for (Aspect a : s.writes()) {
        f = f.with(a, meant.orElseThrow().get(a));
      }
      boolean work = now.map(Held::studentWork).orElse(false);
      Held h = new Held(id, s.itemKind(), s.title(), Optional.empty(), f, work, true);
      shell.put(id, h);
      return Optional.of(h);
    }

    Optional<Fingerprints> meant(Step s) {
      return version.stream().filter(m -> m.key().equals(s.key())).map(Meant::aspects).findFirst();
    }

    void apply(List<Step> steps) {
      for (Step s : steps) {
        Optional<Held> now = write(s, meant(s));
        Receipt.of(s, meant(s), now, true, Optional.ofNullable(bases.get(s.key())))
            .ifPresent(this::keep);
      }
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
          w.apply(w.plan());
          assertThat(w.plan()).noneMatch(Step::moves);
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
              w.version.stream().anyMatch(m -> m.rule() == EditRule.FIXED || m.instructorsOnly());
          if (someFixed) {
            return;
          }
          w.apply(w.plan());
          assertThat(w.shell).containsAllEntriesOf(own);
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
          w.apply(w.plan());
          assertThat(w.plan()).noneMatch(s -> s.kind() == StepKind.CLASH);
        });
  }

  @Test
  void whatIsForInstructorsOnlyIsHiddenAsTheVersionSaysWhateverElseIsKept() {
    Laws.hold(
        random -> {
          World w = new World(random.nextLong());
          w.apply(w.plan());
          for (Meant m : w.version) {
            Base b = w.bases.get(m.key());
            Held h = b == null ? null : w.shell.get(b.id());
            boolean blocked =
                w.plan().stream()
                    .anyMatch(s -> s.key().equals(m.key()) && s.kind() == StepKind.BLOCKED);
            if (m.instructorsOnly() && h != null && !blocked) {
              assertThat(h.aspects().get(Aspect.VISIBILITY))
                  .isEqualTo(m.aspects().get(Aspect.VISIBILITY));
            }
          }
        });
  }
}
