package org.zephyrmist.core.delivery;

import java.util.EnumMap;
import java.util.EnumSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.delivery.Step.AspectStep;
import org.zephyrmist.core.tree.Node;

/**
 * Base, section and master, aspect by aspect.
 *
 * @param writes aspects that are written
 * @param becomes what those become
 */
record ThreeWay(Map<Aspect, AspectStep> aspects, Set<Aspect> writes, Fingerprints becomes) {

  static ThreeWay of(Node m, Base b, Held s, Choices choices, Merges merges) {
    EnumMap<Aspect, AspectStep> map = new EnumMap<>(Aspect.class);
    for (Aspect a : Aspect.values()) {
      map.put(a, aspect(a, m, b, s.aspects(), choices));
    }
    Optional<Merges.Merged> merged =
        bothMoved(map).contains(Aspect.WORDING)
            ? Merges.wanted(m, b, s.aspects()).flatMap(merges::of)
            : Optional.empty();
    if (merged.filter(Merges.Merged::clean).isPresent()
        && choices.clash(m.kind()) != Choices.Clash.PUT_BACK) {
      map.put(Aspect.WORDING, AspectStep.MERGED);
    }
    Optional<Fingerprint> text =
        decided(map, m, s, choices, merged).or(() -> merged.map(Merges.Merged::becomes));
    if (s.studentWork() && writes(map.get(Aspect.GRADING))) {
      map.compute(Aspect.GRADING, (a, did) -> ofWork(did, m, s, choices));
    }
    Fingerprints becomes =
        text.filter(t -> map.get(Aspect.WORDING).merges())
            .map(t -> m.aspects().with(Aspect.WORDING, t))
            .orElse(m.aspects());
    Set<Aspect> writes = EnumSet.noneOf(Aspect.class);
    map.forEach(
        (a, did) -> {
          boolean there = did.merges() && becomes.get(a).equals(s.aspects().get(a));
          if (writes(did) && !there) {
            writes.add(a);
          }
        });
    return new ThreeWay(map, writes, becomes);
  }

  /**
   * What a person decided. Of what must equal the master nobody decides otherwise.
   *
   * @return the text that was put together by hand
   */
  private static Optional<Fingerprint> decided(
      Map<Aspect, AspectStep> map,
      Node m,
      Held s,
      Choices choices,
      Optional<Merges.Merged> merged) {
    Set<Aspect> moved = bothMoved(map);
    if (moved.isEmpty()) {
      return Optional.empty();
    }
    Optional<Decisions.Decision> decision =
        choices.decisions().of(m.key(), moved, s.aspects(), m.aspects());
    Set<Aspect> open = EnumSet.copyOf(moved);
    open.removeIf(a -> m.rule(a) == EditRule.FIXED);
    decision.ifPresent(
        d -> {
          switch (d.take()) {
            case SECTION -> open.forEach(a -> map.put(a, AspectStep.CLASH_KEPT));
            case VERSION -> open.forEach(a -> map.put(a, AspectStep.CLASH_OVERWRITTEN));
            case TOGETHER -> {
              if (open.contains(Aspect.WORDING) && (d.text().isPresent() || merged.isPresent())) {
                map.put(Aspect.WORDING, AspectStep.CLASH_TOGETHER);
              }
            }
            case ADOPT, ADD, LEAVE, CHANGE_GRADING, HIDE -> {}
          }
        });
    return decision.flatMap(Decisions.Decision::text);
  }

  /** Grading under which students left something changes only by a person's word. */
  private static AspectStep ofWork(AspectStep would, Node m, Held s, Choices choices) {
    return choices
        .decisions()
        .ofWork(m.key(), s.aspects(), Optional.of(m.aspects()))
        .map(
            take ->
                switch (take) {
                  case CHANGE_GRADING -> would;
                  case LEAVE -> AspectStep.KEEP;
                  default -> AspectStep.BLOCKED;
                })
        .orElse(AspectStep.BLOCKED);
  }

  /** Aspects that both sides moved, whatever becomes of that. */
  static Set<Aspect> bothMoved(Map<Aspect, AspectStep> aspects) {
    Set<Aspect> all = EnumSet.noneOf(Aspect.class);
    aspects.forEach(
        (a, did) -> {
          if (did.bothMoved()) {
            all.add(a);
          }
        });
    return all;
  }

  private static AspectStep aspect(Aspect a, Node m, Base b, Fingerprints s, Choices choices) {
    Fingerprint here = s.get(a);
    Fingerprint wanted = m.aspects().get(a);
    boolean changedHere = !here.equals(b.shown().get(a));
    boolean masterMoved = !wanted.equals(b.sent().get(a));
    if (choices.leaves(a) && !wanted.equals(here)) {
      return AspectStep.LEFT;
    }
    if (wanted.equals(here) || (!changedHere && !masterMoved && !m.hides(a))) {
      return AspectStep.SAME;
    }
    EditRule rule = m.rule(a);
    if (rule == EditRule.STARTER || rule != EditRule.FIXED && b.accepted().contains(a)) {
      return AspectStep.KEEP;
    }
    if (!changedHere) {
      return AspectStep.UPDATE;
    }
    if (rule == EditRule.FIXED) {
      return masterMoved ? AspectStep.CLASH_OVERWRITTEN : AspectStep.UPDATE;
    }
    if (!masterMoved) {
      boolean back =
          choices.clash(m.kind()) == Choices.Clash.PUT_BACK && !choices.decisions().keeps(m.key());
      return back ? AspectStep.UPDATE : AspectStep.KEEP;
    }
    return choices.clash(m.kind()) == Choices.Clash.KEEP_SECTION
        ? AspectStep.CLASH_KEPT
        : AspectStep.CLASH_OVERWRITTEN;
  }

  private static boolean writes(AspectStep step) {
    return step == AspectStep.UPDATE || step == AspectStep.CLASH_OVERWRITTEN || step.merges();
  }
}
