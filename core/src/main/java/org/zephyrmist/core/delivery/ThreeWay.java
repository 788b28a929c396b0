package org.zephyrmist.core.delivery;

import java.util.EnumMap;
import java.util.Map;
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
    if (s.studentWork() && writes(map.get(Aspect.GRADING))) {
      map.put(Aspect.GRADING, AspectStep.BLOCKED);
    }
    return map;
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
    if (rule == EditRule.STARTER) {
      return AspectStep.KEEP;
    }
    if (!changedHere) {
      return AspectStep.UPDATE;
    }
    if (rule == EditRule.FIXED) {
      return masterMoved ? AspectStep.CLASH_OVERWRITTEN : AspectStep.UPDATE;
    }
    if (!masterMoved) {
      return AspectStep.KEEP;
    }
    return choices.clash() == Choices.Clash.TAKE_VERSION
        ? AspectStep.CLASH_OVERWRITTEN
        : AspectStep.CLASH_KEPT;
  }

  static boolean writes(AspectStep step) {
    return step == AspectStep.UPDATE || step == AspectStep.CLASH_OVERWRITTEN;
  }
}
