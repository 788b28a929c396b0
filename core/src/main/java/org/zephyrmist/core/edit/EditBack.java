package org.zephyrmist.core.edit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.Sides;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.Step.AspectStep;
import org.zephyrmist.core.delivery.Step.Reason;
import org.zephyrmist.core.delivery.StepKind;

/**
 * Takes an edit back in one shell: what it wrote becomes as it was, unless somebody changed it
 * since, and what it removed comes again.
 */
public final class EditBack {
  private EditBack() {}

  /**
   * @param done steps of the edit that were carried out; their base is what the shell showed after
   *     it, none if that is not known
   * @param put whether what was changed since is overwritten too
   */
  public static List<Step> plan(List<Held> shell, List<Step> done, boolean put) {
    Map<String, Held> byId = new HashMap<>();
    shell.forEach(h -> byId.put(h.id(), h));
    List<Step> steps = new ArrayList<>();
    for (Step s : done) {
      String id = s.id().orElseThrow();
      Optional<Held> now = Optional.ofNullable(byId.get(id));
      if (s.kind() == StepKind.RETIRE) {
        now.map(h -> Optional.<Step>empty())
            .orElseGet(() -> Optional.of(again(s)))
            .ifPresent(steps::add);
      } else {
        steps.add(now.map(h -> written(s, h, put)).orElseGet(() -> removedSince(s)));
      }
    }
    return List.copyOf(steps);
  }

  private static Step again(Step s) {
    Optional<Fingerprints> was = s.sides().here();
    return new Step(
        s.key(),
        s.itemKind(),
        s.title(),
        StepKind.ADD,
        Optional.empty(),
        Map.of(),
        Set.of(Aspect.values()),
        Reason.TAKEN_BACK,
        new Sides(Optional.empty(), Optional.empty(), was, was));
  }

  private static Step removedSince(Step s) {
    return step(
        s, StepKind.KEEP, Map.of(), Reason.REMOVED_HERE, Optional.empty(), s.sides().here());
  }

  private static Step written(Step s, Held now, boolean put) {
    Fingerprints was = s.sides().here().orElseThrow();
    Fingerprints left = s.sides().base().or(() -> s.sides().becomes()).orElseThrow();
    Map<Aspect, AspectStep> aspects = new HashMap<>();
    Fingerprints becomes = now.aspects();
    for (Aspect a : s.writes()) {
      boolean back = now.aspects().get(a).equals(was.get(a));
      boolean untouched = now.aspects().get(a).equals(left.get(a));
      if (!back) {
        aspects.put(a, untouched || put ? AspectStep.UPDATE : AspectStep.KEEP);
      }
      if (!back && (untouched || put)) {
        becomes = becomes.with(a, was.get(a));
      }
    }
    StepKind kind =
        aspects.containsValue(AspectStep.UPDATE)
            ? StepKind.UPDATE
            : aspects.isEmpty() ? StepKind.SAME : StepKind.KEEP;
    Reason why =
        switch (kind) {
          case UPDATE -> Reason.TAKEN_BACK;
          case KEEP -> Reason.CHANGED_HERE;
          default -> Reason.EQUAL;
        };
    return step(s, kind, aspects, why, Optional.of(now.aspects()), Optional.of(becomes));
  }

  private static Step step(
      Step s,
      StepKind kind,
      Map<Aspect, AspectStep> aspects,
      Reason why,
      Optional<Fingerprints> here,
      Optional<Fingerprints> becomes) {
    Set<Aspect> writes = new java.util.HashSet<>();
    aspects.forEach(
        (a, x) -> {
          if (x == AspectStep.UPDATE) {
            writes.add(a);
          }
        });
    return new Step(
        s.key(),
        s.itemKind(),
        s.title(),
        kind,
        here.flatMap(h -> s.id()),
        aspects,
        writes,
        why,
        new Sides(s.sides().base(), here, becomes, becomes));
  }
}
