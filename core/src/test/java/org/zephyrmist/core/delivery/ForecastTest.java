package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/** The forecast of many sections is what each of them would be planned, added up. */
class ForecastTest {
  private static final Visibility SHOWN = new Visibility(true, false);

  /** Sections in memory with what each holds. */
  private static final class College {
    final Random random;
    final Tree version;
    final Needs needs;
    final PartsChoice parts;
    final List<SectionFacts> facts = new ArrayList<>();
    final List<Map<ItemKey, Base>> bases = new ArrayList<>();
    final List<Map<ItemKey, Fingerprints>> here = new ArrayList<>();
    final List<Map<ItemKey, Fingerprints>> becoming = new ArrayList<>();

    College(Random random) {
      this.random = random;
      version = version();
      needs = needs();
      parts =
          new PartsChoice(
              pick(List.of(PartsChoice.What.values())),
              new PartSet(
                  some(List.of(Kind.QUIZ, Kind.PAGE), 3),
                  some(keys(), 4),
                  some(List.of("k2", "k4"), 3)),
              new PartSet(
                  some(List.of(Kind.RUBRIC, Kind.PAGE), 4),
                  some(keys(), 8),
                  some(List.of("k5", "k0"), 6)));
      for (int s = random.nextInt(6); s >= 0; s--) {
        section();
      }
    }

    private <T> T pick(List<T> of) {
      return of.get(random.nextInt(of.size()));
    }

    private <T> Set<T> some(List<T> of, int rare) {
      Set<T> some = new HashSet<>();
      of.stream().filter(x -> random.nextInt(rare) == 0).forEach(some::add);
      return some;
    }

    private List<ItemKey> keys() {
      return version.nodes().stream().map(Node::key).toList();
    }

    private Tree version() {
      List<Node> nodes = new ArrayList<>();
      for (int i = 0; i < 8; i++) {
        boolean module = i == 0 || i == 4;
        Optional<ItemKey> in =
            module || i == 7 ? Optional.empty() : Optional.of(new ItemKey(i < 4 ? "k0" : "k4"));
        AppliesTo to =
            random.nextInt(4) == 0
                ? new AppliesTo(Set.of("quay"), Set.of(), Set.of())
                : AppliesTo.EVERY_SECTION;
        Kind kind = module ? Kind.MODULE : pick(List.of(Kind.PAGE, Kind.QUIZ, Kind.RUBRIC));
        nodes.add(
            new Node(
                new ItemKey("k" + i),
                kind,
                "k" + i,
                in,
                Rank.nth(i),
                pick(List.of(EditRule.values())),
                SHOWN,
                to,
                any()));
      }
      return Tree.of(nodes);
    }

    private Fingerprints any() {
      Map<Aspect, String> forms = new EnumMap<>(Aspect.class);
      for (Aspect a : Aspect.values()) {
        forms.put(a, "v" + random.nextInt(2));
      }
      return Sample.aspects(forms, "");
    }

    private Needs needs() {
      Map<ItemKey, List<Needs.Need>> all = new HashMap<>();
      List<ItemKey> items =
          version.nodes().stream().filter(n -> n.kind() != Kind.MODULE).map(Node::key).toList();
      for (int i = random.nextInt(6); i > 0; i--) {
        ItemKey to = pick(items);
        ItemKey by = pick(items);
        if (!to.equals(by)) {
          all.put(by, List.of(new Needs.Need(to, pick(List.of(Needs.Why.values())))));
        }
      }
      return new Needs(all);
    }

    private void section() {
      facts.add(new SectionFacts(pick(List.of("quay", "north")), "", Set.of()));
      Map<ItemKey, Base> b = new LinkedHashMap<>();
      Map<ItemKey, Fingerprints> h = new HashMap<>();
      Map<ItemKey, Fingerprints> becomes = new HashMap<>();
      keys().stream().filter(k -> random.nextInt(4) == 0).forEach(k -> becomes.put(k, any()));
      becoming.add(becomes);
      for (ItemKey k : keys()) {
        if (random.nextBoolean()) {
          Fingerprints sent = random.nextBoolean() ? version.get(k).orElseThrow().aspects() : any();
          b.put(k, new Base(k, version.get(k).get().kind(), k.value(), "p" + k, sent, sent));
          if (random.nextInt(4) > 0) {
            h.put(k, random.nextBoolean() ? sent : any());
          }
        }
      }
      if (random.nextInt(3) == 0) {
        h.clear();
      }
      if (random.nextBoolean()) {
        ItemKey gone = new ItemKey("gone");
        b.put(gone, new Base(gone, Kind.PAGE, "gone", "pgone", any(), any()));
        h.put(gone, random.nextBoolean() ? b.get(gone).shown() : any());
      }
      bases.add(b);
      here.add(h);
    }

    Forecast.Sections sections() {
      Map<List<Object>, Forecast.Holds> alike = new LinkedHashMap<>();
      for (int s = 0; s < facts.size(); s++) {
        for (Base b : bases.get(s).values()) {
          Optional<Fingerprints> now = Optional.ofNullable(here.get(s).get(b.key()));
          alike
              .computeIfAbsent(List.of(b, now), x -> new Forecast.Holds(b, now, new BitSet()))
              .sections()
              .set(s);
        }
      }
      return new Forecast.Sections(facts, List.copyOf(alike.values()));
    }

    Fingerprints becomes(Node n, int section) {
      return becoming.get(section).getOrDefault(n.key(), n.aspects());
    }

    /** The steps of each section as the planner makes them. */
    Map<StepKind, Integer> planned(Choices choices) {
      Map<StepKind, Integer> totals = new EnumMap<>(StepKind.class);
      for (int s = 0; s < facts.size(); s++) {
        Map<ItemKey, Fingerprints> now = here.get(s);
        boolean emptied = Emptied.is(bases.get(s).values(), b -> now.containsKey(b.key()));
        Map<ItemKey, Base> given =
            Emptied.counting(bases.get(s), b -> now.containsKey(b.key()), choices, emptied);
        List<Held> shell = new ArrayList<>();
        now.forEach(
            (k, f) -> {
              Base b = given.get(k);
              shell.add(new Held(b.id(), b.kind(), k.value(), Optional.empty(), f, false, false));
            });
        int section = s;
        Tree said =
            Tree.of(version.nodes().stream().map(n -> n.withAspects(becomes(n, section))).toList());
        Tree applies = Meant.of(said, Parts.EVERYTHING, facts.get(s)).items();
        Parts p = parts.in(said, applies, needs, given, now::containsKey);
        Meant meant = Meant.of(said, p, facts.get(s));
        for (Step step : Planner.plan(meant, shell, given, choices, emptied, Alongside.NOTHING)) {
          boolean stays = step.reason() == Step.Reason.ALREADY_GONE;
          if (step.itemKind() != Kind.MODULE && !stays) {
            totals.merge(step.kind(), 1, Integer::sum);
          }
        }
      }
      return totals;
    }
  }

  @Test
  void theTotalsAreThoseOfAllPlans() {
    Laws.hold(
        random -> {
          College c = new College(random);
          Choices choices = Choices.SAFE.with(c.pick(List.of(Choices.EmptiedShell.values())));
          Forecast.Sections to = c.sections();
          Becoming becoming = c::becomes;
          Forecast.Sections said =
              new Forecast.Sections(to.facts(), becoming.asSaid(c.version, to.holds()));
          Forecast f = Forecast.of(c.version, c.needs, c.parts, choices, said, Merges.NONE);
          assertThat(f.totals()).isEqualTo(c.planned(choices));
        });
  }

  @Test
  void whatComesAlongSaysWhyAndInHowManySections() {
    ItemKey quiz = new ItemKey("quiz");
    ItemKey bank = new ItemKey("bank");
    Tree version =
        Sample.tree(
            Sample.in(null, "quiz", Kind.QUIZ), Sample.in(null, "bank", Kind.QUESTION_BANK));
    Needs needs = new Needs(Map.of(quiz, List.of(new Needs.Need(bank, Needs.Why.BANK))));
    PartsChoice some = new PartsChoice(PartsChoice.What.SOME, PartSet.of(Set.of(quiz)));
    SectionFacts anywhere = new SectionFacts("quay", "", Set.of());
    Forecast f =
        Forecast.of(
            version,
            needs,
            some,
            Choices.SAFE,
            new Forecast.Sections(List.of(anywhere, anywhere), List.of()),
            Merges.NONE);
    Forecast.OfItem along = f.items().get(1);
    assertThat(along.because()).contains(new Needs.Because(quiz, Needs.Why.BANK));
    assertThat(along.along()).isEqualTo(2);
    assertThat(f.totals()).isEqualTo(Map.of(StepKind.ADD, 4));
  }
}
