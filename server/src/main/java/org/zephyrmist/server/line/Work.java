package org.zephyrmist.server.line;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.tool.Reported;
import org.zephyrmist.server.ledger.Holding;
import org.zephyrmist.server.platform.PlatformGateway.Written;
import org.zephyrmist.server.shell.Ours;

/**
 * A plan that is being carried out.
 *
 * @param forms what its steps write
 * @param ours our items in the shell; more as they are added
 * @param left the platform's revision of each item that was written, by its id there
 * @param reported what the platform calls failed of it
 */
record Work(
    Planned plan,
    Map<ItemKey, Forms.Written> forms,
    Ours ours,
    Map<String, String> left,
    List<Reported> reported) {
  static Work of(Planned p, Map<ItemKey, Forms.Written> forms) {
    return new Work(p, forms, ours(p), new HashMap<>(), new ArrayList<>());
  }

  /** Our items that are in the shell, with those that the plan adopts. */
  private static Ours ours(Planned p) {
    Ours ours =
        Ours.of(
            p.reading().holdings().stream()
                .filter((Holding h) -> p.reading().item(h.platformItem()).isPresent())
                .toList());
    p.bases()
        .forEach(
            (key, b) ->
                p.reading()
                    .item(b.id())
                    .ifPresent(there -> ours.put(p.version().master(), key, there.id())));
    p.standIns().forEach((key, id) -> ours.standIn(p.version().master(), key, id));
    p.editing()
        .ifPresent(
            e ->
                p.steps()
                    .forEach(
                        s -> s.id().ifPresent(id -> ours.put(e.master(s.key()), s.key(), id))));
    p.steps().stream()
        .filter(Step::adopts)
        .forEach(s -> ours.put(p.version().master(), s.key(), s.id().orElseThrow()));
    return ours;
  }

  /** The platform's id of an item of the plan. */
  Optional<String> id(ItemKey key) {
    return ours.id(plan.master(key), key);
  }

  void written(Step s, Written now) {
    ours.put(plan.master(s.key()), s.key(), now.id());
    EditLines.again(ours, plan.editing(), s.key(), now.id());
    left.put(now.id(), now.revision());
    if (!now.failed().isEmpty()) {
      reported.add(new Reported(s.title(), host(s.key()), now.failed()));
    }
  }

  /** Where what is written leads; empty if nowhere. */
  private String host(ItemKey key) {
    return Optional.ofNullable(forms.get(key))
        .map(f -> f.forms().get(Aspect.LAUNCH))
        .map(f -> Frames.host(AspectForms.launch(f).address()))
        .orElse("");
  }

  UUID master() {
    return plan.version().master();
  }

  Line line() {
    return plan.line();
  }
}
