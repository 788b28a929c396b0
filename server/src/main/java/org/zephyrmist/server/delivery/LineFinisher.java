package org.zephyrmist.server.delivery;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Receipt;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.delivery.LinePlanner.Planned;
import org.zephyrmist.server.delivery.LineRunner.Work;

/** Reads a shell back after writing and enters what it found: receipts, holdings, standing. */
@Component
class LineFinisher {
  private final Lines lines;
  private final PlannedSteps stored;
  private final ShellReader reader;
  private final Ledger ledger;
  private final Bodies bodies;
  private final TransactionTemplate transaction;

  LineFinisher(
      Lines lines,
      PlannedSteps stored,
      ShellReader reader,
      Ledger ledger,
      Bodies bodies,
      TransactionTemplate transaction) {
    this.lines = lines;
    this.stored = stored;
    this.reader = reader;
    this.ledger = ledger;
    this.bodies = bodies;
    this.transaction = transaction;
  }

  void finish(Work w) {
    Planned p = w.plan();
    UUID line = w.line();
    lines.activity(line, LineState.RUNNING, "reading back");
    boolean moved = p.steps().stream().anyMatch(Step::moves);
    ShellReader.Reading now = moved ? readBack(w) : p.reading();
    List<Receipt> receipts = new ArrayList<>();
    int withheld = 0;
    int expected = 0;
    int missing = 0;
    int kept = 0;
    for (Step s : p.steps()) {
      Meant m = p.meant().get(s.key());
      Held held = w.id(s.key()).map(now.byId()::get).orElse(null);
      expected += m == null ? 0 : 1;
      boolean blocked = m != null && s.kind() == StepKind.BLOCKED;
      withheld += blocked && held != null ? 1 : 0;
      missing += s.moves() && s.kind() != StepKind.RETIRE && held == null ? 1 : 0;
      kept += s.kind() == StepKind.KEEP || s.kind() == StepKind.CLASH ? 1 : 0;
      receipt(s, Optional.ofNullable(m), Optional.ofNullable(held), now, w)
          .ifPresent(receipts::add);
    }
    int all = expected;
    int held = withheld;
    now.keep(bodies, p.steps().stream().flatMap(s -> w.id(s.key()).stream()).toList());
    int dead = w.items().values().stream().mapToInt(VersionContent.Live::dead).sum();
    String end = end(p, moved, missing, kept) + nowhere(dead);
    transaction.executeWithoutResult(
        t -> {
          lines.hold(w.section());
          Ledger.Origin origin = Settlement.origin(p.open(), p.version());
          ledger.record(origin, receipts);
          stored.recorded(
              line, p.steps().stream().filter(Step::moves).map(s -> s.key().value()).toList());
          ledger.standing(origin, all, held);
          UUID section = w.section().getId();
          ledger.seen(section, ledger.holdings(section), now.byId());
          lines.done(line, end);
        });
  }

  private static Optional<Receipt> receipt(
      Step s, Optional<Meant> m, Optional<Held> held, ShellReader.Reading now, Work w) {
    boolean untouched =
        held.map(Held::id)
            .map(w.left()::get)
            .map(r -> r.equals(now.revisions().get(held.get().id())))
            .orElse(true);
    return Receipt.of(
        s,
        m.map(Meant::aspects),
        held,
        untouched,
        Optional.ofNullable(w.plan().bases().get(s.key())));
  }

  private ShellReader.Reading readBack(Work w) {
    return reader.read(w.plan().gateway(), w.section(), w.ours());
  }

  private static String end(Planned p, boolean moved, int missing, int kept) {
    String local =
        kept == 0 ? "" : kept == 1 ? "; 1 local change kept" : "; " + kept + " local changes kept";
    if (!moved) {
      return LineRunner.nothingToDo(p.version()) + local;
    }
    return missing == 0
        ? "read back, all as meant" + local
        : "read back, " + missing + " items are not there" + local;
  }

  private static String nowhere(int dead) {
    return dead == 0
        ? ""
        : dead == 1
            ? "; 1 reference leads nowhere and was left out"
            : "; " + dead + " references lead nowhere and were left out";
  }
}
