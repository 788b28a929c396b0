package org.zephyrmist.core.delivery;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.tree.Node;

/** A section in memory that carries plans out as a platform would. */
final class World {
  /** Half of the time the two changes do not meet. */
  static final Merges MERGES =
      three ->
          Optional.of(
              new Merges.Merged(
                  Fingerprint.of("both " + three), Math.floorMod(three.hashCode(), 2) == 0));

  final Random random;
  final List<Node> version = new ArrayList<>();
  final Map<String, Held> shell = new LinkedHashMap<>();
  final Map<ItemKey, Base> bases = new LinkedHashMap<>();
  Choices choices;
  final Supplied supplied;
  int next;

  World(long seed) {
    random = new Random(seed);
    choices =
        new Choices(
            pick(Choices.Clash.values()),
            pick(Choices.Twin.values()),
            Choices.Arrival.AS_IN_MASTER,
            pick(Choices.Dates.values()));
    if (random.nextInt(3) == 0) {
      choices =
          choices.with(
              new Choices.ByKind(
                  Map.of(Kind.PAGE, pick(Choices.Clash.values())),
                  Map.of(Kind.ASSIGNMENT, pick(Choices.Twin.values()))));
    }
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
        Base base = new Base(key, kind, "T", id, sent, shown);
        boolean accepted = random.nextInt(6) == 0;
        bases.put(key, accepted ? base.accepting(Set.of(Aspect.WORDING)) : base);
        if (random.nextInt(4) > 0) {
          Fingerprints s = random.nextBoolean() ? shown : any();
          shell.put(id, new Held(id, kind, "T", Optional.empty(), s, random.nextInt(5) == 0, true));
        }
      }
    }
    Map<Decisions.About, Decisions.Decision> made = new LinkedHashMap<>();
    for (Node m : version) {
      Decisions.Take take = pick(Decisions.Take.values());
      if (random.nextBoolean()) {
        made.put(new Decisions.About(m.key(), Optional.empty()), Decisions.Decision.of(take));
      }
    }
    choices = choices.with(new Decisions(made)).with(pick(Choices.EmptiedShell.values()));
    boolean clean = random.nextInt(6) == 0;
    choices = choices.with(clean ? Choices.Onto.CLEAN : Choices.Onto.UP_TO_DATE);
    List<Held> others = new ArrayList<>();
    for (int i = random.nextInt(3); i > 0; i--) {
      Kind kind = pick(Kind.PAGE, Kind.ASSIGNMENT);
      others.add(
          new Held(
              "other" + i, kind, "T" + random.nextInt(4), Optional.empty(), any(), false, false));
    }
    others.forEach(h -> shell.put(h.id(), h));
    supplied = Supplied.by(others, List.of(), Set.of());
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
        Sample.meant(version),
        List.copyOf(shell.values()),
        given,
        choices,
        emptied,
        new Alongside(Twins.NONE, supplied, MERGES));
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
    List<Step> sent = steps.stream().filter(Step::moves).filter(s -> random.nextBoolean()).toList();
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
    bases.forEach((k, b) -> held.put(k, Optional.ofNullable(shell.get(b.id())).map(Held::aspects)));
    return held;
  }

  void keep(Receipt r) {
    if (r.how().ends()) {
      bases.remove(r.base().key());
    } else {
      bases.put(r.base().key(), r.base());
    }
  }
}
