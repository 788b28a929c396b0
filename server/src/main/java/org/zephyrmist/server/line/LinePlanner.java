package org.zephyrmist.server.line;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Alongside;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.Emptied;
import org.zephyrmist.core.delivery.FrontPages;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Merges;
import org.zephyrmist.core.delivery.Planner;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.delivery.Supplied;
import org.zephyrmist.core.delivery.Twins;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.server.ledger.Holding;
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
  private final Orders orders;
  private final FrontPagesMeet frontPages;
  private final NamedPlaces places;
  private final PlacesForWeeks weeks;
  private final EditLines editLines;
  private final MergedTexts merged;
  private final Ledger ledger;

  LinePlanner(
      PlannedSteps stored,
      Shells shells,
      ShellReader reader,
      Versions versions,
      Settlement settlement,
      MeantTexts texts,
      TakenBack takenBack,
      NotYet notYet,
      LikeTwins likeTwins,
      Orders orders,
      FrontPagesMeet frontPages,
      NamedPlaces places,
      PlacesForWeeks weeks,
      EditLines editLines,
      MergedTexts merged,
      Ledger ledger) {
    this.ledger = ledger;
    this.merged = merged;
    this.editLines = editLines;
    this.weeks = weeks;
    this.places = places;
    this.frontPages = frontPages;
    this.orders = orders;
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
    if (orders.any(orders.before(line), EnumSet.of(LineState.TO_PLAN))) {
      throw new TooEarly();
    }
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

  /** What comes before it in its order is not planned yet. */
  static final class TooEarly extends RuntimeException {
    TooEarly() {
      super("What comes before this line is not planned yet");
    }
  }

  private void intoEmpty(Line line) {
    if (line.edits()) { // what is not there is not changed
      stored.plan(line, List.of(), Reading.OF_NOTHING, false, LineState.NOT_YET);
      return;
    }
    Versions.Version version = versions.get(line.version());
    Meant meant =
        places.of(line, Reading.OF_NOTHING, texts.of(version, line, Map.of(), k -> false));
    Alongside others =
        new Alongside(Twins.NONE, supplied(line, Reading.OF_NOTHING, version), Merges.NONE);
    List<Step> steps = Planner.plan(meant, List.of(), Map.of(), line.choices(), false, others);
    stored.plan(line, steps, Reading.OF_NOTHING, false, LineState.NOT_YET);
  }

  /** Reads and plans without storing. */
  Planned make(Line line) {
    PlatformGateway gateway = shells.gateway(line.shell());
    settlement.settle(line, gateway);
    Reading reading = reader.read(gateway, line.shell());
    reader.seen(line.shell(), reading);
    Versions.Version version = versions.get(line.version());
    reading.complete(
        Ledger.bases(reading.holdings(), version.master()).values().stream()
            .map(Base::id)
            .collect(Collectors.toSet()));
    if (line.edits()) {
      return editLines.plan(line, gateway, version, reading);
    }
    Optional<TakenBack.Back> back = takenBack.of(line);
    if (back.isPresent()) {
      return takeBack(line, gateway, version, reading, back.get());
    }
    Map<ItemKey, Base> delivered = Ledger.bases(reading.holdings(), version.master());
    Predicate<Base> there = b -> reading.item(b.id()).isPresent();
    boolean emptied =
        stored.begun(line.id()) ? line.emptied() : Emptied.is(delivered.values(), there);
    Choices choices =
        line.choices().onto().anew()
            ? line.choices().with(Choices.EmptiedShell.ANEW)
            : line.choices();
    Map<ItemKey, Base> bases = Emptied.counting(delivered, there, choices, emptied);
    Meant meant =
        places.of(
            line,
            reading,
            texts.of(
                version,
                line,
                bases,
                k -> bases.containsKey(k) && reading.item(bases.get(k).id()).isPresent()));
    Twins twins = likeTwins.of(meant, reading, bases, line.shell().facts());
    Supplied supplied = supplied(line, reading, version);
    List<UUID> before = orders.before(line);
    Alongside alongside = new Alongside(twins, supplied, merges(meant, reading.items(), bases));
    Function<Meant, List<Step>> plain =
        x -> Planner.plan(x, reading.items(), bases, choices, emptied, alongside);
    FrontPagesMeet.Alone alone = () -> plain.apply(meant);
    Optional<FrontPagesMeet.Met> met =
        frontPages.of(
            new FrontPagesMeet.Asked(line, version, meant, reading, bases, supplied, before),
            alone);
    Function<Meant, List<Step>> plan =
        x ->
            met.map(
                    m ->
                        FrontPages.told(
                            Planner.plan(
                                x,
                                m.shell(),
                                m.bases(),
                                choices,
                                emptied,
                                new Alongside(twins, supplied, merges(x, m.shell(), m.bases()))),
                            m.page()))
                .orElseGet(() -> plain.apply(x));
    Meant all = met.map(FrontPagesMeet.Met::meant).orElse(meant);
    List<Step> steps = weeks.of(version.tree(), reading, all, choices, plan);
    Set<ItemKey> own = new HashSet<>(bases.keySet());
    steps.stream().filter(s -> s.kind() == StepKind.ADD).forEach(s -> own.add(s.key()));
    List<Node> others =
        version.tree().nodes().stream().filter(n -> !own.contains(n.key())).toList();
    Map<ItemKey, String> standIns = supplied.standIns(others);
    met.ifPresent(m -> m.standIns().forEach(standIns::putIfAbsent));
    return new Planned(
        line,
        gateway,
        version,
        all,
        reading,
        met.map(FrontPagesMeet.Met::bases).orElse(bases),
        steps,
        emptied,
        Optional.empty(),
        standIns,
        met.filter(FrontPagesMeet.Met::first).map(FrontPagesMeet.Met::page),
        Optional.empty());
  }

  /** Of what the section and the master changed. */
  private Merges merges(Meant meant, List<Held> shell, Map<ItemKey, Base> bases) {
    return merged.of(Merges.wanted(meant, shell, bases));
  }

  /**
   * What other masters have in the shell, or bring before this line, that stand before this one:
   * the whole college's before a program's, and what comes before it in its order; and, of a master
   * that came there before, what the rest of them have there.
   */
  private Supplied supplied(Line line, Reading reading, Versions.Version version) {
    Map<UUID, String> letters = versions.letters();
    String mine = letters.get(version.master());
    Set<UUID> ahead = orders.mastersBefore(line);
    List<Held> items = new ArrayList<>();
    List<Held> after = new ArrayList<>();
    for (Holding h : reading.holdings()) {
      if (!h.master().equals(version.master())) {
        boolean before = ahead.contains(h.master()) || letters.get(h.master()).compareTo(mine) < 0;
        reading.item(h.platformItem()).ifPresent((before ? items : after)::add);
      }
    }
    for (UUID l : orders.before(line)) {
      stored.unrecorded(l).stream()
          .filter(s -> s.kind() == StepKind.ADD)
          .map(Supplied::coming)
          .forEach(items::add);
    }
    boolean came = !after.isEmpty() && ledger.stand(line.section(), version.master()).isPresent();
    return Supplied.by(items, came ? after : List.of(), theirs(reading, version.master()));
  }

  private static Set<String> theirs(Reading reading, UUID master) {
    return reading.holdings().stream()
        .filter(h -> !h.master().equals(master))
        .map(Holding::platformItem)
        .collect(Collectors.toSet());
  }

  private Planned takeBack(
      Line line,
      PlatformGateway gateway,
      Versions.Version version,
      Reading reading,
      TakenBack.Back back) {
    takenBack.check(line);
    Map<ItemKey, Base> bases = Ledger.bases(reading.holdings(), version.master());
    Map<ItemKey, Base> some = back.rule().concerned(bases, reading.items());
    Meant meant = back.rule().meant(reading.items(), some);
    List<Step> steps =
        back.rule()
            .plan(meant, reading.items(), some, line.choices(), theirs(reading, version.master()));
    return new Planned(
        line,
        gateway,
        version,
        meant,
        reading,
        bases,
        steps,
        false,
        Optional.of(back),
        FrontPagesMeet.leads(reading, bases, version.master()),
        Optional.empty(),
        Optional.empty());
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
