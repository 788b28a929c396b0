package org.zephyrmist.core.delivery;

import java.util.ArrayList;
import java.util.Collection;
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

/** What goes from a shell, in the order in which it can: a module goes after what stands in it. */
final class Retiring {
  private static final int DEEPEST = 1000;
  private final Map<String, Held> shell;
  private final Map<String, Integer> inside = new HashMap<>();
  private final Supplied supplied;

  Retiring(Map<String, Held> shell, Supplied supplied) {
    this.shell = shell;
    this.supplied = supplied;
    shell.values().forEach(h -> h.parent().ifPresent(p -> inside.merge(p, 1, Integer::sum)));
  }

  /**
   * What is to go.
   *
   * @param id the platform's
   * @param base what was delivered of it last
   * @param changedToo whether it goes although the section changed it
   * @param because the reason of the step if it goes
   */
  record Leaving(
      ItemKey key,
      Kind kind,
      String title,
      String id,
      Optional<Fingerprints> base,
      boolean changedToo,
      Reason because) {
    static Leaving of(Base b) {
      return new Leaving(
          b.key(),
          b.kind(),
          b.title(),
          b.id(),
          Optional.of(b.shown()),
          false,
          Reason.GONE_FROM_VERSION);
    }

    /** The same for a clean start. */
    Leaving cleared() {
      return new Leaving(key, kind, title, id, base, true, Reason.CLEARED);
    }
  }

  /** Items that were delivered and are no longer meant for the section. */
  static List<Leaving> notMeant(Meant meant, Collection<Base> bases) {
    return bases.stream()
        .filter(b -> !meant.items().has(b.key()) && meant.parts().include(b.key()))
        .sorted(Comparator.comparing(Base::key))
        .map(Leaving::of)
        .toList();
  }

  /** First what stands in modules, then the modules, the innermost first. */
  List<Step> steps(List<Leaving> leaving) {
    List<Step> steps = new ArrayList<>();
    leaving.stream().filter(b -> b.kind() != Kind.MODULE).forEach(b -> steps.add(step(b)));
    leaving.stream()
        .filter(b -> b.kind() == Kind.MODULE)
        .sorted(Comparator.comparingInt((Leaving b) -> depth(b.id())).reversed())
        .forEach(b -> steps.add(step(b)));
    return steps;
  }

  private Step step(Leaving b) {
    Optional<Held> held = Optional.ofNullable(shell.get(b.id()));
    Reason reason = held.map(s -> reason(b, s)).orElse(Reason.ALREADY_GONE);
    StepKind kind =
        switch (reason) {
          case ALREADY_GONE -> StepKind.SAME;
          case STUDENT_WORK -> StepKind.BLOCKED;
          case GONE_FROM_VERSION, CLEARED -> StepKind.RETIRE;
          default -> StepKind.KEEP;
        };
    if (kind == StepKind.RETIRE) {
      held.flatMap(Held::parent).ifPresent(p -> inside.merge(p, -1, Integer::sum));
    }
    Optional<Fingerprints> here = held.map(Held::aspects);
    Optional<Fingerprints> becomes = kind == StepKind.RETIRE ? Optional.empty() : here;
    Sides sides = new Sides(b.base(), here, Optional.empty(), becomes);
    Optional<String> id = held.map(Held::id);
    return new Step(b.key(), b.kind(), b.title(), kind, id, Map.of(), Set.of(), reason, sides);
  }

  private Reason reason(Leaving b, Held s) {
    if (supplied.isTheirs(s.id())) {
      return Reason.SUPPLIED;
    }
    if (s.studentWork()) {
      return Reason.STUDENT_WORK;
    }
    if (!b.changedToo() && b.base().filter(s.aspects()::equals).isEmpty()) {
      return Reason.GONE_BUT_CHANGED_HERE;
    }
    return inside.getOrDefault(s.id(), 0) > 0 ? Reason.GONE_BUT_HOLDS_OTHERS : b.because();
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
