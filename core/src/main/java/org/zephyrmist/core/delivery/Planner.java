package org.zephyrmist.core.delivery;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Step.AspectStep;
import org.zephyrmist.core.delivery.Step.Reason;

/** Plans one section. Same input, same plan. */
public final class Planner {
  private final List<Meant> version;
  private final Map<String, Held> shell = new LinkedHashMap<>();
  private final Map<ItemKey, Base> bases;
  private final Choices choices;
  private final Likeness likeness;

  private Planner(
      List<Meant> version, List<Held> shell, Map<ItemKey, Base> bases, Choices choices) {
    this.version = version;
    shell.forEach(h -> this.shell.put(h.id(), h));
    this.bases = bases;
    this.choices = choices;
    Set<String> ours = new HashSet<>();
    bases.values().forEach(b -> ours.add(b.id()));
    this.likeness =
        new Likeness(shell.stream().filter(h -> h.free() && !ours.contains(h.id())).toList());
  }

  /**
   * The plan of one section.
   *
   * @param version the items meant for this section, modules before what they hold
   * @param shell what the shell holds now
   * @param bases what was last delivered, by item key
   * @return one step per item of the version, in its order, then one per item to retire
   */
  public static List<Step> plan(
      List<Meant> version, List<Held> shell, Map<ItemKey, Base> bases, Choices choices) {
    return new Planner(version, shell, bases, choices).plan();
  }

  private List<Step> plan() {
    List<Step> steps = new ArrayList<>();
    Set<ItemKey> meant = new HashSet<>();
    Set<ItemKey> needed = neededModules();
    for (Meant m : version) {
      meant.add(m.key());
      if (m.kind() != Kind.MODULE || needed.contains(m.key()) || bases.containsKey(m.key())) {
        steps.add(step(m));
      }
    }
    retire(meant, steps);
    return List.copyOf(steps);
  }

  /** A module is only worth creating if something stands in it. */
  private Set<ItemKey> neededModules() {
    Map<ItemKey, Meant> byKey = new HashMap<>();
    version.forEach(m -> byKey.put(m.key(), m));
    Set<ItemKey> needed = new HashSet<>();
    for (Meant m : version) {
      if (m.kind() != Kind.MODULE) {
        Optional<ItemKey> up = m.parent();
        while (up.isPresent() && needed.add(up.get())) {
          up = Optional.ofNullable(byKey.get(up.get())).flatMap(Meant::parent);
        }
      }
    }
    return needed;
  }

  private Step step(Meant m) {
    Base b = bases.get(m.key());
    if (b == null) {
      return likeness
          .take(m)
          .map(twin -> twin(m, twin))
          .orElseGet(() -> add(m, Reason.NEW_IN_VERSION));
    }
    Held s = shell.get(b.id());
    if (s == null) {
      return m.rule() == EditRule.FIXED
          ? add(m, Reason.FIXED_PUT_BACK)
          : plain(m, StepKind.KEEP, Optional.empty(), Reason.REMOVED_HERE);
    }
    return merge(m, b, s);
  }

  private Step merge(Meant m, Base b, Held s) {
    Map<Aspect, AspectStep> aspects = ThreeWay.of(m, b, s, choices);
    EnumSet<Aspect> writes = EnumSet.noneOf(Aspect.class);
    aspects.forEach(
        (a, step) -> {
          if (ThreeWay.writes(step)) {
            writes.add(a);
          }
        });
    StepKind kind;
    Reason reason;
    if (aspects.containsValue(AspectStep.BLOCKED)) {
      kind = StepKind.BLOCKED;
      reason = Reason.STUDENT_WORK;
      writes.clear();
    } else if (aspects.containsValue(AspectStep.CLASH_KEPT)
        || aspects.containsValue(AspectStep.CLASH_OVERWRITTEN)) {
      kind = StepKind.CLASH;
      reason = Reason.BOTH_MOVED;
    } else if (!writes.isEmpty()) {
      kind = StepKind.UPDATE;
      reason = movedByVersion(m, b, writes) ? Reason.VERSION_MOVED : Reason.FIXED_PUT_BACK;
    } else if (aspects.containsValue(AspectStep.KEEP)) {
      kind = StepKind.KEEP;
      reason =
          m.rule() == EditRule.STARTER ? Reason.STARTER_BELONGS_TO_SECTION : Reason.CHANGED_HERE;
    } else {
      kind = StepKind.SAME;
      reason = Reason.EQUAL;
    }
    return new Step(
        m.key(), m.kind(), m.title(), kind, Optional.of(s.id()), aspects, writes, reason);
  }

  private static boolean movedByVersion(Meant m, Base b, Set<Aspect> writes) {
    return writes.stream().anyMatch(a -> !m.aspects().get(a).equals(b.sent().get(a)));
  }

  private Step twin(Meant m, Held s) {
    return switch (choices.twin()) {
      case ADOPT -> adopt(m, s);
      case LEAVE -> plain(m, StepKind.TWIN, Optional.of(s.id()), Reason.ALIKE_LEFT);
      case ADD -> add(m, Reason.ALIKE_ADDED_BESIDE);
    };
  }

  /** Nothing is written but what is fixed: that must equal the master at once. */
  private Step adopt(Meant m, Held s) {
    EnumSet<Aspect> writes = EnumSet.noneOf(Aspect.class);
    for (Aspect a : m.aspects().differing(s.aspects())) {
      boolean work = a == Aspect.GRADING && s.studentWork();
      if (m.rule(a) == EditRule.FIXED && !work) {
        writes.add(a);
      }
    }
    return new Step(
        m.key(),
        m.kind(),
        m.title(),
        StepKind.TWIN,
        Optional.of(s.id()),
        Map.of(),
        writes,
        Reason.ALIKE_ADOPTED);
  }

  private Step add(Meant m, Reason reason) {
    return new Step(
        m.key(),
        m.kind(),
        m.title(),
        StepKind.ADD,
        Optional.empty(),
        Map.of(),
        EnumSet.allOf(Aspect.class),
        reason);
  }

  private void retire(Set<ItemKey> meant, List<Step> steps) {
    Set<String> removed = new HashSet<>();
    List<Base> gone =
        bases.values().stream()
            .filter(b -> !meant.contains(b.key()))
            .sorted((x, y) -> x.key().compareTo(y.key()))
            .toList();
    gone.stream().filter(b -> b.kind() != Kind.MODULE).forEach(b -> retire(b, removed, steps));
    List<Base> modules =
        new ArrayList<>(gone.stream().filter(b -> b.kind() == Kind.MODULE).toList());
    modules.sort((x, y) -> Integer.compare(depth(y.id()), depth(x.id())));
    modules.forEach(b -> retire(b, removed, steps));
  }

  private void retire(Base b, Set<String> removed, List<Step> steps) {
    Held s = shell.get(b.id());
    StepKind kind = StepKind.KEEP;
    Reason reason;
    if (s == null) {
      kind = StepKind.SAME;
      reason = Reason.ALREADY_GONE;
    } else if (s.studentWork()) {
      kind = StepKind.BLOCKED;
      reason = Reason.STUDENT_WORK;
    } else if (!s.aspects().equals(b.shown())) {
      reason = Reason.GONE_BUT_CHANGED_HERE;
    } else if (holdsOthers(s.id(), removed)) {
      reason = Reason.GONE_BUT_HOLDS_OTHERS;
    } else {
      kind = StepKind.RETIRE;
      reason = Reason.GONE_FROM_VERSION;
      removed.add(s.id());
    }
    steps.add(
        new Step(
            b.key(),
            b.kind(),
            b.title(),
            kind,
            Optional.ofNullable(s).map(Held::id),
            Map.of(),
            Set.of(),
            reason));
  }

  private boolean holdsOthers(String module, Set<String> removed) {
    return shell.values().stream()
        .anyMatch(h -> h.parent().equals(Optional.of(module)) && !removed.contains(h.id()));
  }

  private int depth(String id) {
    int depth = 0;
    Held h = shell.get(id);
    while (h != null && h.parent().isPresent() && depth < 100) {
      h = shell.get(h.parent().get());
      depth++;
    }
    return depth;
  }

  private Step plain(Meant m, StepKind kind, Optional<String> id, Reason reason) {
    return new Step(m.key(), m.kind(), m.title(), kind, id, Map.of(), Set.of(), reason);
  }
}
