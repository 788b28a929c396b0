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

/** Base, section and master, aspect by aspect. */
final class ThreeWay {
  private ThreeWay() {}

  static Map<Aspect, AspectStep> of(Node m, Base b, Held s, Choices choices) {
    EnumMap<Aspect, AspectStep> map = new EnumMap<>(Aspect.class);
    for (Aspect a : Aspect.values()) {
      map.put(a, aspect(a, m, b, s.aspects(), choices));
    }
    decided(map, m, s, choices);
    if (s.studentWork() && writes(map.get(Aspect.GRADING))) {
      map.put(Aspect.GRADING, AspectStep.BLOCKED);
    }
    return map;
  }

  /** Of what must equal the master nobody decides otherwise. */
  private static void decided(Map<Aspect, AspectStep> map, Node m, Held s, Choices choices) {
    Set<Aspect> open = clashing(map);
    Optional<Decisions.Decision> decision = decision(map, m, s, choices);
    open.removeIf(a -> m.rule(a) == EditRule.FIXED);
    decision.ifPresent(
        d -> {
          switch (d.take()) {
            case SECTION -> open.forEach(a -> map.put(a, AspectStep.CLASH_KEPT));
            case VERSION -> open.forEach(a -> map.put(a, AspectStep.CLASH_OVERWRITTEN));
            case TOGETHER -> {
              if (open.contains(Aspect.WORDING)) {
                map.put(Aspect.WORDING, AspectStep.CLASH_TOGETHER);
              }
            }
            case ADOPT, ADD, LEAVE -> {}
          }
        });
  }

  private static Optional<Decisions.Decision> decision(
      Map<Aspect, AspectStep> aspects, Node m, Held s, Choices choices) {
    Set<Aspect> clashing = clashing(aspects);
    return clashing.isEmpty()
        ? Optional.empty()
        : choices.decisions().of(m.key(), clashing, s.aspects(), m.aspects());
  }

  /** Aspects that both sides moved, whatever becomes of that. */
  static Set<Aspect> clashing(Map<Aspect, AspectStep> aspects) {
    Set<Aspect> all = EnumSet.noneOf(Aspect.class);
    aspects.forEach(
        (a, did) -> {
          if (did.clash()) {
            all.add(a);
          }
        });
    return all;
  }

  /** What both texts become, where they are taken together. */
  static Optional<Fingerprint> together(
      Node m, Held s, Map<Aspect, AspectStep> aspects, Choices choices) {
    return aspects.get(Aspect.WORDING) == AspectStep.CLASH_TOGETHER
        ? decision(aspects, m, s, choices).flatMap(Decisions.Decision::together)
        : Optional.empty();
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

  static boolean writes(AspectStep step) {
    return step == AspectStep.UPDATE
        || step == AspectStep.CLASH_OVERWRITTEN
        || step == AspectStep.CLASH_TOGETHER;
  }
}
