package org.zephyrmist.server.line;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.server.master.Versions.Version;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.shell.Reading;

/**
 * A plan with all that it was made from.
 *
 * @param emptied whether the shell was found emptied before the line began
 * @param standIns items of other masters that stand for items of this one, by the platform's ids
 * @param back what it takes back; none if it is an ordinary line
 * @param meets a front page that is one with another master's from now on
 * @param editing what makes a change, or takes one back, without a version
 */
record Planned(
    Line line,
    PlatformGateway gateway,
    Version version,
    Meant meant,
    Reading reading,
    Map<ItemKey, Base> bases,
    List<Step> steps,
    boolean emptied,
    Optional<TakenBack.Back> back,
    Map<ItemKey, String> standIns,
    Optional<ItemKey> meets,
    Optional<Editing> editing) {
  /** Whether nothing is done in the shell, because it was emptied or may not be cleared. */
  boolean untouched() {
    return because(Step.Reason.EMPTIED) || because(Step.Reason.NOT_CLEARED);
  }

  boolean because(Step.Reason reason) {
    return steps.stream().anyMatch(s -> s.reason() == reason);
  }

  /** Whose the item of a step is. */
  UUID master(ItemKey key) {
    return EditLines.master(editing, version.master(), key);
  }

  /** Among what the texts that it writes may name items. */
  Forms.Within within() {
    if (editing.isPresent()) {
      return new Forms.Within(line.id(), k -> true); // what it names is there, or was before
    }
    return back.map(
            b ->
                new Forms.Within(
                    line.id(),
                    k ->
                        bases.containsKey(k)
                            || b.rule().keys().contains(k)
                            || standIns.containsKey(k)))
        .orElseGet(
            () ->
                standIns.isEmpty()
                    ? Forms.Within.version(version)
                    : new Forms.Within(
                        line.id(), k -> version.tree().has(k) || standIns.containsKey(k)));
  }
}
