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
 * there as it is. Where students have handed in work, nothing is done at all.
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
      Twins twins,
      Supplied supplied) {
    return new CleanStart(meant, shell, bases).plan(choices, twins, supplied);
  }

  /** By which an item of a shell is named that no master brought. */
  public static ItemKey own(String id) {
    return ItemKey.of(OWN + id).orElseGet(() -> ItemKey.named(OWN + id));
  }

  private List<Step> plan(Choices choices, Twins twins, Supplied supplied) {
    List<Held> stays = shell.stream().filter(h -> ours.contains(h.id()) || ownSetup(h)).toList();
    List<Held> own =
        shell.stream().filter(h -> h.free() && !ours.contains(h.id()) && !ownSetup(h)).toList();
    List<Leaving> leaving = leaving(own);
    if (stays.stream().anyMatch(Held::studentWork) || own.stream().anyMatch(Held::studentWork)) {
      return refused(leaving, choices);
    }
    List<Step> steps =
        new ArrayList<>(Planner.coming(meant, stays, bases, choices, twins, supplied, false));
    Map<String, Held> byId = new LinkedHashMap<>();
    shell.forEach(h -> byId.put(h.id(), h));
    steps.addAll(new Retiring(byId, supplied).steps(leaving));
    return List.copyOf(steps);
  }

  /** A shell without its setup is none; the version's takes its place where it has one. */
  private static boolean ownSetup(Held h) {
    return h.free() && h.kind() == Kind.SETUP;
  }

  private List<Leaving> leaving(List<Held> own) {
    List<Leaving> leaving = new ArrayList<>();
    own.forEach(h -> leaving.add(leaving(h)));
    bases.values().stream()
        .filter(b -> !meant.items().has(b.key()))
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
      steps.add(s.id().filter(work::containsKey).isPresent() ? s.blocked() : s);
    }
    steps.addAll(
        new Retiring(work, Supplied.NOTHING)
            .steps(leaving.stream().filter(l -> work.containsKey(l.id())).toList()));
    return List.copyOf(steps);
  }
}
