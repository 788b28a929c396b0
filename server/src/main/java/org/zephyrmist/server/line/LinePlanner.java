package org.zephyrmist.server.line;

import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Emptied;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Planner;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.server.ledger.Ledger;
import org.zephyrmist.server.master.Versions;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.shell.Reading;
import org.zephyrmist.server.shell.ShellReader;
import org.zephyrmist.server.shell.Shells;

/** Plans one line from a fresh reading of its shell. */
@Component
class LinePlanner {
  private final PlannedSteps stored;
  private final Shells shells;
  private final ShellReader reader;
  private final Versions versions;
  private final Settlement settlement;
  private final MeantTexts texts;

  LinePlanner(
      PlannedSteps stored,
      Shells shells,
      ShellReader reader,
      Versions versions,
      Settlement settlement,
      MeantTexts texts) {
    this.texts = texts;
    this.stored = stored;
    this.shells = shells;
    this.reader = reader;
    this.versions = versions;
    this.settlement = settlement;
  }

  /** Reads and plans; the plan is stored as the line's. */
  void plan(Line line) {
    store(make(line), LineState.PLANNED);
  }

  /** Reads and plans without storing. */
  Planned make(Line line) {
    PlatformGateway gateway = shells.gateway(line.shell());
    settlement.settle(line, gateway);
    Reading reading = reader.read(gateway, line.shell());
    reader.seen(line.shell(), reading);
    Versions.Version version = versions.get(line.version());
    Map<ItemKey, Base> all = Ledger.bases(reading.holdings(), version.master());
    Predicate<Base> there = b -> reading.item(b.id()).isPresent();
    boolean emptied = stored.begun(line.id()) ? line.emptied() : Emptied.is(all.values(), there);
    Map<ItemKey, Base> bases = Emptied.counting(all, there, line.choices(), emptied);
    Meant meant =
        texts.of(
            version,
            line,
            bases,
            k -> bases.containsKey(k) && reading.item(bases.get(k).id()).isPresent());
    List<Step> steps = Planner.plan(meant, reading.items(), bases, line.choices(), emptied);
    return new Planned(line, gateway, version, meant, reading, bases, steps, emptied);
  }

  void store(Planned p, LineState state) {
    reader.keep(
        p.reading(),
        p.steps().stream()
            .filter(s -> s.kind() != StepKind.SAME)
            .flatMap(s -> s.id().stream())
            .toList());
    stored.plan(p, state);
  }
}
