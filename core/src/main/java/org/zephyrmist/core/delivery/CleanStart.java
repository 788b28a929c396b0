package org.zephyrmist.core.delivery;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Retiring.Leaving;
import org.zephyrmist.core.delivery.Step.Reason;
import org.zephyrmist.core.tree.Tree;

/**
 * A shell is cleared of what no other master brought but for its setup, and the version stands
 * there as it is. Of chosen parts only these are made as the version has them, and what the choice
 * covers and the version has no more is cleared away; all else in the shell stays. Where students
 * have left something on any of it, nothing is done at all.
 */
public final class CleanStart {
  private static final String OWN = "own.";
  private final List<Held> shell;
  private final Map<ItemKey, Base> bases;
  private final Meant meant;
  private final Set<String> ours = new HashSet<>();

  private CleanStart(Meant meant, List<Held> shell, Map<ItemKey, Base> bases) {
    Map<ItemKey, Base> there = new HashMap<>();
    Set<String> ids = new HashSet<>();
    shell.forEach(h -> ids.add(h.id()));
    bases.forEach(
        (k, b) -> {
          if (ids.contains(b.id())) {
            there.put(k, b);
            ours.add(b.id());
          }
        });
    this.bases = there;
    this.shell = shell;
    this.meant =
        meant.of(
            Tree.of(meant.items().nodes().stream().map(n -> n.withRule(EditRule.FIXED)).toList()));
  }

  static List<Step> plan(
      Meant meant,
      List<Held> shell,
      Map<ItemKey, Base> bases,
      Choices choices,
      Alongside alongside) {
    return new CleanStart(meant, shell, bases).plan(choices, alongside);
  }

  /** By which an item of a shell is named that no master brought. */
  public static ItemKey own(String id) {
    return ItemKey.of(OWN + id).orElseGet(() -> new ItemKey(OWN + ItemKey.named(id).value()));
  }

  /** Whether an item is named as one that no master brought. */
  public static boolean isOwn(ItemKey key) {
    return key.value().startsWith(OWN);
  }

  private List<Step> plan(Choices choices, Alongside alongside) {
    List<Held> stays = shell.stream().filter(h -> ours.contains(h.id()) || ownSetup(h)).toList();
    boolean whole = meant.parts().keys().isEmpty();
    List<Held> own =
        shell.stream()
            .filter(h -> whole && h.free() && !ours.contains(h.id()) && !ownSetup(h))
            .toList();
    List<Leaving> leaving = leaving(own);
    Set<String> touched = new HashSet<>();
    leaving.forEach(l -> touched.add(l.id()));
    meant.items().nodes().stream()
        .flatMap(n -> Optional.ofNullable(bases.get(n.key())).stream())
        .forEach(b -> touched.add(b.id()));
    if (shell.stream().anyMatch(h -> h.studentWork() && touched.contains(h.id()))) {
      return refused(leaving, choices);
    }
    List<Step> steps =
        new ArrayList<>(
            Planner.coming(meant, stays, bases, choices, alongside, false).stream()
                .map(CleanStart::cleared)
                .toList());
    Map<String, Held> byId = new LinkedHashMap<>();
    shell.forEach(h -> byId.put(h.id(), h));
    steps.addAll(
        new Retiring(byId, alongside.supplied(), Decisions.NONE)
            .after(steps, meant, bases)
            .steps(leaving));
    return List.copyOf(steps);
  }

  /** Nothing is asked: what a section changed goes, whatever was decided of it. */
  private static Step cleared(Step s) {
    return s.kind() == StepKind.CLASH ? s.overwriting(Reason.CLEARED) : s;
  }

  /** A shell without its setup is none; the version's takes its place where it has one. */
  private static boolean ownSetup(Held h) {
    return h.free() && h.kind() == Kind.SETUP;
  }

  private List<Leaving> leaving(List<Held> own) {
    List<Leaving> leaving = new ArrayList<>();
    own.forEach(h -> leaving.add(leaving(h)));
    bases.values().stream()
        .filter(b -> !meant.items().has(b.key()) && meant.parts().include(b.key()))
        .sorted((a, b) -> a.key().compareTo(b.key()))
        .forEach(b -> leaving.add(Leaving.of(b).cleared()));
    return leaving;
  }

  private static Leaving leaving(Held h) {
    return new Leaving(
        own(h.id()), h.kind(), h.title(), h.id(), Optional.empty(), true, Reason.CLEARED);
  }

  /** What students have handed in stands out; all else is left. */
  private List<Step> refused(List<Leaving> leaving, Choices choices) {
    List<Step> steps = new ArrayList<>();
    Map<String, Held> work = new LinkedHashMap<>();
    shell.stream().filter(Held::studentWork).forEach(h -> work.put(h.id(), h));
    for (Step s : Planner.untouched(meant, shell, bases, choices, Reason.NOT_CLEARED)) {
      steps.add(s.id().filter(work::containsKey).isPresent() ? s.blocked(Reason.NOT_CLEARED) : s);
    }
    new Retiring(work, Supplied.NOTHING, Decisions.NONE)
        .steps(leaving.stream().filter(l -> work.containsKey(l.id())).toList())
        .forEach(s -> steps.add(s.blocked(Reason.NOT_CLEARED)));
    return List.copyOf(steps);
  }
}
