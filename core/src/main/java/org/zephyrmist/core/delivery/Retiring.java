package org.zephyrmist.core.delivery;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Step.Reason;

/** What becomes of items that were delivered and are no longer meant for the section. */
final class Retiring {
  private static final int DEEPEST = 1000;
  private final Map<String, Held> shell;
  private final List<Base> gone;
  private final Map<String, Integer> inside = new HashMap<>();

  Retiring(Meant meant, Map<String, Held> shell, Map<ItemKey, Base> bases) {
    this.shell = shell;
    this.gone =
        bases.values().stream()
            .filter(b -> !meant.items().has(b.key()) && meant.parts().include(b.key()))
            .sorted(Comparator.comparing(Base::key))
            .toList();
    shell.values().forEach(h -> h.parent().ifPresent(p -> inside.merge(p, 1, Integer::sum)));
  }

  /** First what stands in modules, then the modules, the innermost first. */
  List<Step> steps() {
    List<Step> steps = new ArrayList<>();
    gone.stream().filter(b -> b.kind() != Kind.MODULE).forEach(b -> steps.add(step(b)));
    gone.stream()
        .filter(b -> b.kind() == Kind.MODULE)
        .sorted(Comparator.comparingInt((Base b) -> depth(b.id())).reversed())
        .forEach(b -> steps.add(step(b)));
    return steps;
  }

  private Step step(Base b) {
    Optional<Held> held = Optional.ofNullable(shell.get(b.id()));
    Reason reason = held.map(s -> reason(b, s)).orElse(Reason.ALREADY_GONE);
    StepKind kind =
        switch (reason) {
          case ALREADY_GONE -> StepKind.SAME;
          case STUDENT_WORK -> StepKind.BLOCKED;
          case GONE_FROM_VERSION -> StepKind.RETIRE;
          default -> StepKind.KEEP;
        };
    if (kind == StepKind.RETIRE) {
      held.flatMap(Held::parent).ifPresent(p -> inside.merge(p, -1, Integer::sum));
    }
    Optional<Fingerprints> here = held.map(Held::aspects);
    Optional<Fingerprints> becomes = kind == StepKind.RETIRE ? Optional.empty() : here;
    Sides sides = new Sides(Optional.of(b.shown()), here, Optional.empty(), becomes);
    Optional<String> id = held.map(Held::id);
    return new Step(b.key(), b.kind(), b.title(), kind, id, Map.of(), Set.of(), reason, sides);
  }

  private Reason reason(Base b, Held s) {
    if (s.studentWork()) {
      return Reason.STUDENT_WORK;
    }
    if (!s.aspects().equals(b.shown())) {
      return Reason.GONE_BUT_CHANGED_HERE;
    }
    return inside.getOrDefault(s.id(), 0) > 0
        ? Reason.GONE_BUT_HOLDS_OTHERS
        : Reason.GONE_FROM_VERSION;
  }

  private int depth(String id) {
    int depth = 0;
    Optional<String> up = Optional.ofNullable(shell.get(id)).flatMap(Held::parent);
    while (up.isPresent() && depth < DEEPEST) {
      up = Optional.ofNullable(shell.get(up.get())).flatMap(Held::parent);
      depth++;
    }
    return depth;
  }
}
