package org.zephyrmist.server.line;

import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Parts;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.server.ledger.Ledger;
import org.zephyrmist.server.ledger.RestorePoints;
import org.zephyrmist.server.master.Versions;
import org.zephyrmist.server.shell.KeptReadings;
import org.zephyrmist.server.shell.Shells;

/** Carries one line out: read, check the plan, write, read back, receipts and standing. */
@Component
class LineRunner {
  private final Lines lines;
  private final PlannedSteps stored;
  private final LinePlanner planner;
  private final Shells shells;
  private final Versions versions;
  private final Forms forms;
  private final Ledger ledger;
  private final StepSender sender;
  private final LineFinisher finisher;
  private final TransactionTemplate transaction;
  private final NotYet notYet;
  private final RestorePoints restorePoints;
  private final KeptReadings kept;
  private final Orders orders;

  LineRunner(
      Lines lines,
      PlannedSteps stored,
      LinePlanner planner,
      Shells shells,
      Versions versions,
      Forms forms,
      Ledger ledger,
      StepSender sender,
      LineFinisher finisher,
      TransactionTemplate transaction,
      NotYet notYet,
      RestorePoints restorePoints,
      KeptReadings kept,
      Orders orders) {
    this.orders = orders;
    this.kept = kept;
    this.notYet = notYet;
    this.restorePoints = restorePoints;
    this.lines = lines;
    this.stored = stored;
    this.planner = planner;
    this.shells = shells;
    this.versions = versions;
    this.forms = forms;
    this.ledger = ledger;
    this.sender = sender;
    this.finisher = finisher;
    this.transaction = transaction;
  }

  void run(Line line) {
    if (orders.any(orders.before(line), EnumSet.complementOf(EnumSet.of(LineState.DONE)))) {
      notYet.before(line);
      return;
    }
    if (line.shell().id().isEmpty()) {
      notYet.shell(line);
      return;
    }
    if (line.takesBack().isEmpty()
        && !line.edits()
        && stored.nothingPlanned(line)
        && stillSo(line)) {
      return;
    }
    lines.activity(line.id(), LineState.RUNNING, "reading the shell");
    Planned p = planner.make(line);
    int holds = notYet.holds(line, p.reading());
    if (holds > 0) {
      notYet.empty(line, holds, p.reading().tag());
      return;
    }
    long news = newOverwrites(line, p.steps());
    planner.store(p, LineState.RUNNING);
    if (news > 0) {
      lines.needsPerson(
          line.id(),
          "Read again before writing: the section changed "
              + (news == 1 ? "an item" : news + " items")
              + " that this delivery would overwrite.",
          "Look at the plan of this section, then go on.");
      return;
    }
    lines.stood(
        line.id(), ledger.stand(line.section(), p.version().master()), p.reading().counts());
    keepBefore(p);
    lines.allWritten(line.id(), false);
    Work work = Work.of(p, forms.of(p.within(), p.steps()));
    sender.send(work);
    finisher.finish(work);
  }

  /** What the shell holds is kept if anything there is to be changed or removed. */
  private void keepBefore(Planned p) {
    if (p.steps().stream().anyMatch(s -> s.moves() && s.kind() != StepKind.ADD)) {
      kept.keepTexts(p.reading());
      restorePoints.keep(p.line().id(), p.line().section(), p.reading().items());
    }
  }

  /**
   * A plan with nothing to do stands if the shell is still in the state it was read in; then it
   * need not be read again.
   */
  private boolean stillSo(Line line) {
    if (!stored.unsettled(line.section()).isEmpty()
        || !shells
            .gateway(line.shell())
            .unchanged(line.shell().there(), line.readTag().orElse(""))) {
      return false;
    }
    Versions.Version version = versions.get(line.version());
    if (!version.marked().isEmpty()
        || !line.parts().isEverything()
        || line.choices().onto() != Choices.Onto.UP_TO_DATE) {
      return false; // what is meant may have changed, though the shell has not
    }
    int expected = Meant.of(version.tree(), Parts.EVERYTHING, line.shell().facts()).items().size();
    return Boolean.TRUE.equals(
        transaction.execute(
            t -> {
              lines.hold(line);
              lines.stood(
                  line.id(), ledger.stand(line.section(), version.master()), Optional.empty());
              boolean stands = ledger.stillStands(line.origin(version.master()), expected);
              if (stands) {
                lines.done(line.id(), LineFinisher.nothingToDo(version.number()), Optional.empty());
              }
              return stands;
            }));
  }

  /** Overwriting what a section changed is only done if the plan that was confirmed showed it. */
  private long newOverwrites(Line line, List<Step> steps) {
    Set<ItemKey> shown =
        stored.steps(line.id()).stream()
            .filter(Step::overwrites)
            .map(Step::key)
            .collect(Collectors.toSet());
    return steps.stream().filter(s -> s.overwrites() && !shown.contains(s.key())).count();
  }
}
