package org.zephyrmist.server.delivery;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.Meant;
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
    List<Ledger.Entry> entries = new ArrayList<>();
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
      Ledger.Entry e = entry(s, m, asWeLeftIt(s, m, held, now, w.left()), p.bases().get(s.key()));
      if (e != null) {
        entries.add(e);
      }
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
          ledger.record(origin, entries);
          stored.recorded(
              line, p.steps().stream().filter(Step::moves).map(s -> s.key().value()).toList());
          ledger.standing(origin, all, held);
          UUID section = w.section().getId();
          ledger.seen(section, ledger.holdings(section), now.byId());
          lines.done(line, end);
        });
  }

  /**
   * An item that somebody changed between our write and the reading back: what the shell shows is
   * theirs, so the base of what we wrote is what we meant.
   */
  private static Held asWeLeftIt(
      Step s, Meant m, Held now, ShellReader.Reading reading, Map<String, String> left) {
    if (now == null || m == null || !left.containsKey(now.id())) {
      return now;
    }
    if (left.get(now.id()).equals(reading.revisions().get(now.id()))) {
      return now;
    }
    Fingerprints f = now.aspects();
    for (Aspect a : s.kind() == StepKind.ADD ? Set.of(Aspect.values()) : s.writes()) {
      f = f.with(a, m.aspects().get(a));
    }
    return now.with(f);
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

  /** The receipt of a step; none if nothing of the item's base has moved. */
  private static Ledger.Entry entry(Step s, Meant m, Held now, Base old) {
    if (s.kind() == StepKind.RETIRE) {
      return new Ledger.Entry(old, Ledger.How.RETIRED, Set.of());
    }
    if (m == null || now == null) {
      return null;
    }
    if (s.kind() == StepKind.TWIN) {
      return s.reason() == Step.Reason.ALIKE_ADOPTED
          ? new Ledger.Entry(Base.adopted(m, now), Ledger.How.ADOPTED, s.writes())
          : null;
    }
    if (s.kind() == StepKind.ADD) {
      Base b = new Base(m.key(), m.kind(), m.title(), now.id(), m.aspects(), now.aspects());
      return new Ledger.Entry(b, Ledger.How.ADDED, s.writes());
    }
    if (old == null || s.kind() == StepKind.BLOCKED) {
      return null;
    }
    Base after = old.after(s, m, now.aspects());
    boolean same = after.sent().equals(old.sent()) && after.shown().equals(old.shown());
    if (same && s.writes().isEmpty()) {
      return null;
    }
    return new Ledger.Entry(
        after, s.writes().isEmpty() ? Ledger.How.KEPT : Ledger.How.UPDATED, s.writes());
  }
}
