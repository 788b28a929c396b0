package org.zephyrmist.server.delivery;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.server.db.tables.records.DeliveryStepRecord;
import org.zephyrmist.server.db.tables.records.SectionRecord;
import org.zephyrmist.server.delivery.LinePlanner.Planned;
import org.zephyrmist.server.platform.PlatformGateway;

/** Carries one line out: read, check the plan, write, read back, receipts and standing. */
@Component
class LineRunner {
  private final Lines lines;
  private final PlannedSteps stored;
  private final LinePlanner planner;
  private final ShellReader reader;
  private final VersionContent versions;
  private final Ledger ledger;
  private final StepSender sender;
  private final LineFinisher finisher;
  private final TransactionTemplate transaction;

  LineRunner(
      Lines lines,
      PlannedSteps stored,
      LinePlanner planner,
      ShellReader reader,
      VersionContent versions,
      Ledger ledger,
      StepSender sender,
      LineFinisher finisher,
      TransactionTemplate transaction) {
    this.lines = lines;
    this.stored = stored;
    this.planner = planner;
    this.reader = reader;
    this.versions = versions;
    this.ledger = ledger;
    this.sender = sender;
    this.finisher = finisher;
    this.transaction = transaction;
  }

  /**
   * A plan that is being carried out.
   *
   * @param items that are written
   * @param ours our items in the shell; more as they are added
   * @param left the platform's revision of each item that was written
   */
  record Work(
      Planned plan, Map<ItemKey, VersionContent.Live> items, Ours ours, Map<String, String> left) {
    /** The platform's id of an item of the version. */
    Optional<String> id(ItemKey key) {
      return ours.id(plan.version().master(), key);
    }

    void written(ItemKey key, String id) {
      ours.put(plan.version().master(), key, id);
    }

    UUID line() {
      return plan.open().line().getId();
    }

    SectionRecord section() {
      return plan.open().section();
    }
  }

  void run(Lines.Open open) {
    UUID line = open.line().getId();
    if (stored.nothingPlanned(open) && stillSo(open)) {
      return;
    }
    lines.activity(line, LineState.RUNNING, "reading the shell");
    Planned p = planner.make(open);
    int news = newOverwrites(line, p.steps());
    planner.store(p, LineState.RUNNING);
    if (news > 0) {
      lines.needsPerson(
          line,
          "Read again before writing: the section changed "
              + (news == 1 ? "an item" : news + " items")
              + " that this delivery would overwrite.",
          "Look at the plan of this section, then go on.");
      return;
    }
    Work work = new Work(p, items(p), ours(p), new HashMap<>());
    sender.send(work);
    finisher.finish(work);
  }

  /**
   * A plan with nothing to do stands if the shell is still in the state it was read in; then it
   * need not be read again.
   */
  private boolean stillSo(Lines.Open open) {
    PlatformGateway gateway = reader.gateway(open.section());
    if (!stored.unsettled(open.section().getId()).isEmpty()
        || !gateway.unchanged(open.section().getShell(), open.line().getReadTag())) {
      return false;
    }
    VersionContent.Loaded version = versions.load(open.delivery().getVersionId());
    return Boolean.TRUE.equals(
        transaction.execute(
            t -> {
              lines.hold(open.section());
              boolean stands =
                  ledger.stillStands(Settlement.origin(open, version), version.meant().size());
              if (stands) {
                lines.done(open.line().getId(), nothingToDo(version));
              }
              return stands;
            }));
  }

  static String nothingToDo(VersionContent.Loaded version) {
    return "nothing to do: it holds version " + version.number();
  }

  /** Overwriting what a section changed is only done if the plan that was confirmed showed it. */
  private int newOverwrites(UUID line, List<Step> steps) {
    Set<String> shown =
        stored.steps(line).stream()
            .filter(s -> s.getMoves() && overwrites(s))
            .map(DeliveryStepRecord::getItemKey)
            .collect(Collectors.toSet());
    return (int)
        steps.stream()
            .filter(LineRunner::overwrites)
            .filter(s -> !shown.contains(s.key().value()))
            .count();
  }

  private static boolean overwrites(DeliveryStepRecord s) {
    return s.getKind().equals(StepKind.CLASH.name())
        || s.getReason().equals(Step.Reason.FIXED_PUT_BACK.name());
  }

  private static boolean overwrites(Step s) {
    return s.moves() && (s.kind() == StepKind.CLASH || s.reason() == Step.Reason.FIXED_PUT_BACK);
  }

  private Map<ItemKey, VersionContent.Live> items(Planned p) {
    return versions.items(
        p.version(),
        p.steps().stream()
            .filter(s -> s.moves() && s.kind() != StepKind.RETIRE)
            .map(Step::key)
            .toList());
  }

  /** Our items that are in the shell, with those that the plan adopts. */
  private static Ours ours(Planned p) {
    Ours ours =
        Ours.of(
            p.reading().holdings().stream()
                .filter(h -> p.reading().byId().containsKey(h.getPlatformItem()))
                .toList());
    p.steps().stream()
        .filter(s -> s.kind() == StepKind.TWIN && s.reason() == Step.Reason.ALIKE_ADOPTED)
        .forEach(s -> ours.put(p.version().master(), s.key(), s.id().orElseThrow()));
    return ours;
  }
}
