package org.zephyrmist.server.delivery;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Planner;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.platform.PlatformGateway;

/** Plans one line from a fresh reading of its shell. */
@Component
class LinePlanner {
  private final PlannedSteps stored;
  private final ShellReader reader;
  private final VersionContent versions;
  private final Settlement settlement;
  private final Bodies bodies;

  LinePlanner(
      PlannedSteps stored,
      ShellReader reader,
      VersionContent versions,
      Settlement settlement,
      Bodies bodies) {
    this.stored = stored;
    this.reader = reader;
    this.versions = versions;
    this.settlement = settlement;
    this.bodies = bodies;
  }

  /** A plan with all that it was made from. */
  record Planned(
      Lines.Open open,
      PlatformGateway gateway,
      VersionContent.Loaded version,
      ShellReader.Reading reading,
      Map<ItemKey, Base> bases,
      Map<ItemKey, Meant> meant,
      List<Step> steps) {}

  /** Reads and plans; the plan is stored as the line's. */
  void plan(Lines.Open line) {
    Planned p = make(line);
    store(p, LineState.PLANNED);
  }

  /** Reads and plans without storing. */
  Planned make(Lines.Open open) {
    PlatformGateway gateway = reader.gateway(open.section());
    settlement.settle(open.section(), gateway);
    ShellReader.Reading reading = reader.read(gateway, open.section());
    reader.seen(open.section().getId(), reading);
    VersionContent.Loaded version = versions.load(open.delivery().getVersionId());
    Map<ItemKey, Base> bases = Ledger.bases(reading.holdings(), version.master());
    Map<ItemKey, Meant> meant = new HashMap<>();
    version.meant().forEach(m -> meant.put(m.key(), m));
    Choices choices =
        new Choices(
            Choices.Clash.valueOf(open.delivery().getClash()),
            Choices.Twin.valueOf(open.delivery().getTwin()));
    List<Step> steps = Planner.plan(version.meant(), reading.items(), bases, choices);
    return new Planned(open, gateway, version, reading, bases, meant, steps);
  }

  void store(Planned p, LineState state) {
    p.reading()
        .keep(
            bodies,
            p.steps().stream()
                .filter(s -> s.kind() != StepKind.SAME)
                .flatMap(s -> s.id().stream())
                .toList());
    stored.plan(p.open(), p.steps(), p.bases(), p.reading(), p.meant(), state);
  }
}
