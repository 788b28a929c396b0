package org.zephyrmist.core.delivery;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Step.Reason;
import org.zephyrmist.core.tree.Node;

/** What goes from a shell, in the order in which it can: a module goes after what stands in it. */
final class Retiring {
  private static final int DEEPEST = 1000;
  private static final Fingerprint HIDDEN = Fingerprint.of(Decisions.HIDDEN);
  private final Map<String, Held> shell;
  private final Map<String, Integer> inside = new HashMap<>();
  private final Supplied supplied;
  private final Decisions decisions;

  Retiring(Map<String, Held> shell, Supplied supplied, Decisions decisions) {
    this.decisions = decisions;
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

  /**
   * After these steps: what they put elsewhere does not stand any more where it stood.
   *
   * @param meant among whose items they are
   */
  Retiring after(List<Step> steps, Meant meant, Map<ItemKey, Base> bases) {
    for (Step s : steps) {
      Optional<Held> here = s.id().map(shell::get);
      Optional<Node> to = meant.items().get(s.key());
      if (s.writes().contains(Aspect.PLACE) && here.isPresent() && to.isPresent()) {
        Optional<String> from = here.get().parent();
        boolean stays =
            to.get()
                .parent()
                .filter(k -> from.filter(id -> named(k, bases).test(id)).isPresent())
                .isPresent();
        if (!stays) {
          from.ifPresent(p -> inside.merge(p, -1, Integer::sum));
        }
      }
    }
    return this;
  }

  /** Whether a module of the shell is the one with this key. */
  private static Predicate<String> named(ItemKey key, Map<ItemKey, Base> bases) {
    return id ->
        CleanStart.own(id).equals(key)
            || Optional.ofNullable(bases.get(key)).filter(b -> b.id().equals(id)).isPresent();
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
          case HIDDEN_INSTEAD -> hidden(held.orElseThrow()) ? StepKind.KEEP : StepKind.UPDATE;
          case GONE_FROM_VERSION, CLEARED -> StepKind.RETIRE;
          default -> StepKind.KEEP;
        };
    if (kind == StepKind.RETIRE) {
      held.flatMap(Held::parent).ifPresent(p -> inside.merge(p, -1, Integer::sum));
    }
    Optional<Fingerprints> here = held.map(Held::aspects);
    Set<Aspect> writes = kind == StepKind.UPDATE ? Set.of(Aspect.VISIBILITY) : Set.of();
    Optional<Fingerprints> becomes =
        kind == StepKind.RETIRE
            ? Optional.empty()
            : here.map(h -> writes.isEmpty() ? h : h.with(Aspect.VISIBILITY, HIDDEN));
    Sides sides = new Sides(b.base(), here, Optional.empty(), becomes);
    Optional<String> id = held.map(Held::id);
    return new Step(b.key(), b.kind(), b.title(), kind, id, Map.of(), writes, reason, sides);
  }

  private Reason reason(Leaving b, Held s) {
    if (supplied.isTheirs(s.id())) {
      return Reason.SUPPLIED;
    }
    if (s.studentWork()) {
      return decisions
          .ofWork(b.key(), s.aspects(), Optional.empty())
          .filter(t -> t == Decisions.Take.HIDE || t == Decisions.Take.LEAVE)
          .map(t -> t == Decisions.Take.HIDE ? Reason.HIDDEN_INSTEAD : Reason.LEFT_WITH_WORK)
          .orElse(hidden(s) ? Reason.HIDDEN_INSTEAD : Reason.STUDENT_WORK);
    }
    if (!b.changedToo() && b.base().filter(s.aspects()::equals).isEmpty()) {
      return Reason.GONE_BUT_CHANGED_HERE;
    }
    return inside.getOrDefault(s.id(), 0) > 0 ? Reason.GONE_BUT_HOLDS_OTHERS : b.because();
  }

  private static boolean hidden(Held s) {
    return s.aspects().get(Aspect.VISIBILITY).equals(HIDDEN);
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
