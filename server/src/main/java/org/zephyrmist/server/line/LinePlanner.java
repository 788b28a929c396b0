package org.zephyrmist.server.line;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.Emptied;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Planner;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.delivery.Twins;
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
  private final TakenBack takenBack;
  private final NotYet notYet;
  private final LikeTwins likeTwins;

  LinePlanner(
      PlannedSteps stored,
      Shells shells,
      ShellReader reader,
      Versions versions,
      Settlement settlement,
      MeantTexts texts,
      TakenBack takenBack,
      NotYet notYet,
      LikeTwins likeTwins) {
    this.likeTwins = likeTwins;
    this.texts = texts;
    this.takenBack = takenBack;
    this.notYet = notYet;
    this.stored = stored;
    this.shells = shells;
    this.reader = reader;
    this.versions = versions;
    this.settlement = settlement;
  }

  /**
   * Reads and plans; the plan is stored as the line's. What cannot come yet is planned as it will
   * be when it can.
   */
  void plan(Line line) {
    if (line.shell().id().isEmpty()) {
      intoEmpty(line);
      notYet.shell(line);
      return;
    }
    Planned p = make(line);
    int holds = notYet.holds(line, p.reading());
    if (holds > 0) {
      intoEmpty(line);
      notYet.empty(line, holds, p.reading().tag());
    } else {
      store(p, LineState.PLANNED);
    }
  }

  private void intoEmpty(Line line) {
    Versions.Version version = versions.get(line.version());
    Meant meant = texts.of(version, line, Map.of(), k -> false);
    List<Step> steps = Planner.plan(meant, List.of(), Map.of(), line.choices());
    stored.plan(line, steps, Reading.OF_NOTHING, false, LineState.NOT_YET);
  }

  /** Reads and plans without storing. */
  Planned make(Line line) {
    PlatformGateway gateway = shells.gateway(line.shell());
    settlement.settle(line, gateway);
    Reading reading = reader.read(gateway, line.shell());
    reader.seen(line.shell(), reading);
    Versions.Version version = versions.get(line.version());
    Optional<TakenBack.Back> back = takenBack.of(line);
    if (back.isPresent()) {
      return takeBack(line, gateway, version, reading, back.get());
    }
    Map<ItemKey, Base> all = Ledger.bases(reading.holdings(), version.master());
    Predicate<Base> there = b -> reading.item(b.id()).isPresent();
    boolean emptied = stored.begun(line.id()) ? line.emptied() : Emptied.is(all.values(), there);
    Choices choices =
        line.choices().onto().anew()
            ? line.choices().with(Choices.EmptiedShell.ANEW)
            : line.choices();
    Map<ItemKey, Base> bases = Emptied.counting(all, there, choices, emptied);
    Meant meant =
        texts.of(
            version,
            line,
            bases,
            k -> bases.containsKey(k) && reading.item(bases.get(k).id()).isPresent());
    Twins twins = likeTwins.of(meant, reading, bases, line.shell().facts());
    List<Step> steps = Planner.plan(meant, reading.items(), bases, choices, emptied, twins);
    return new Planned(
        line, gateway, version, meant, reading, bases, steps, emptied, Optional.empty());
  }

  private Planned takeBack(
      Line line,
      PlatformGateway gateway,
      Versions.Version version,
      Reading reading,
      TakenBack.Back back) {
    takenBack.check(line);
    Map<ItemKey, Base> bases = Ledger.bases(reading.holdings(), version.master());
    Map<ItemKey, Base> some = back.rule().concerned(bases);
    Meant meant = back.rule().meant(reading.items(), some);
    List<Step> steps = back.rule().plan(meant, reading.items(), some, line.choices());
    return new Planned(
        line, gateway, version, meant, reading, bases, steps, false, Optional.of(back));
  }

  void store(Planned p, LineState state) {
    reader.keep(
        p.reading(),
        p.steps().stream()
            .filter(s -> s.kind() != StepKind.SAME)
            .flatMap(s -> s.id().stream())
            .toList());
    stored.plan(p.line(), p.steps(), p.reading(), p.emptied(), state);
  }
}
