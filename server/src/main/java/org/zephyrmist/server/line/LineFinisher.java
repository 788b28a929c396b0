package org.zephyrmist.server.line;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.Receipt;
import org.zephyrmist.core.delivery.Stands;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.ledger.Ledger;
import org.zephyrmist.server.ledger.Origin;
import org.zephyrmist.server.shell.KeptReadings;
import org.zephyrmist.server.shell.Ours;
import org.zephyrmist.server.shell.Reading;
import org.zephyrmist.server.shell.ShellReader;

/** Reads a shell back after writing and enters what it found: receipts, holdings, standing. */
@Component
class LineFinisher {
  private final Lines lines;
  private final PlannedSteps stored;
  private final ShellReader reader;
  private final Ledger ledger;
  private final MeantTexts texts;
  private final TransactionTemplate transaction;
  private final TakenBack takenBack;
  private final CalledFailed failed;
  private final EditLines editLines;
  private final KeptReadings kept;

  LineFinisher(
      Lines lines,
      PlannedSteps stored,
      ShellReader reader,
      Ledger ledger,
      MeantTexts texts,
      TransactionTemplate transaction,
      TakenBack takenBack,
      CalledFailed failed,
      EditLines editLines,
      KeptReadings kept) {
    this.kept = kept;
    this.editLines = editLines;
    this.failed = failed;
    this.takenBack = takenBack;
    this.lines = lines;
    this.stored = stored;
    this.reader = reader;
    this.ledger = ledger;
    this.texts = texts;
    this.transaction = transaction;
  }

  /** What came of a plan, counted. */
  private static final class Count {
    private int expected;
    private int withheld;
    private int missing;
    private int kept;
    private int noPlace;
    private int noWeek;

    /**
     * @param whole the version; notes to instructors, which are no items of it, do not count
     */
    void add(Step s, boolean there, Tree whole) {
      boolean meant =
          s.sides().version().isPresent()
              && whole.has(s.key())
              && s.reason() != Step.Reason.SUPPLIED;
      expected += meant ? 1 : 0;
      withheld += meant && s.kind() == StepKind.BLOCKED && there ? 1 : 0;
      missing += s.moves() && s.kind() != StepKind.RETIRE && !there ? 1 : 0;
      boolean nowhere = s.reason() == Step.Reason.NO_PLACE;
      boolean noWeek = s.reason() == Step.Reason.NO_WEEK;
      noPlace += nowhere ? 1 : 0;
      this.noWeek += noWeek ? 1 : 0;
      kept += (s.kind() == StepKind.KEEP || s.kind() == StepKind.CLASH) ? 1 : 0;
    }
  }

  void finish(Work w) {
    Planned p = w.plan();
    Line line = p.line();
    lines.activity(line.id(), LineState.RUNNING, "reading back");
    boolean moved = p.steps().stream().anyMatch(Step::moves);
    boolean wrote = moved || stored.begun(line.id());
    if (moved) {
      lines.allWritten(line.id(), true);
      p.gateway().arrived(line.shell().there());
    }
    Ours ours = p.editing().map(e -> EditLines.tied(e, ids(w))).orElse(w.ours());
    Reading now = moved ? reader.read(p.gateway(), line.shell(), ours) : p.reading();
    reader.keep(now, p.steps().stream().flatMap(s -> w.id(s.key()).stream()).toList());
    if (p.editing().isPresent()) {
      edited(w, now);
    } else {
      delivered(w, now, wrote);
    }
    kept.keep(line.section(), now);
  }

  private void delivered(Work w, Reading now, boolean wrote) {
    Planned p = w.plan();
    Line line = p.line();
    List<Receipt> receipts = new ArrayList<>();
    Count count = new Count();
    for (Step s : p.steps()) {
      Optional<Held> held = w.id(s.key()).flatMap(now::item);
      count.add(s, held.isPresent(), p.version().tree());
      receipt(s, held, now, w).ifPresent(receipts::add);
    }
    int dead = w.forms().values().stream().mapToInt(Forms.Written::dead).sum();
    String end = end(p, wrote, count) + nowhere(dead) + failed.of(w);
    transaction.executeWithoutResult(
        t -> {
          lines.hold(line);
          Origin origin = line.origin(w.master());
          takenBack.record(origin, receipts, p.back());
          stored.recorded(
              line.id(), p.steps().stream().filter(Step::moves).map(s -> s.key().value()).toList());
          stored.became(line.id(), became(w, now));
          stand(p, origin, count);
          ledger.seen(line.section(), ledger.holdings(line.section()), now.byId());
          lines.done(line.id(), end, now.counts());
        });
  }

  /** The ledger notes nothing of a change but how things are now. */
  private void edited(Work w, Reading now) {
    Planned p = w.plan();
    Line line = p.line();
    Map<ItemKey, String> ids = ids(w);
    List<Step> moved = p.steps().stream().filter(Step::moves).toList();
    transaction.executeWithoutResult(
        t -> {
          lines.hold(line);
          stored.recorded(line.id(), moved.stream().map(s -> s.key().value()).toList());
          editLines.noted(line, moved, ids, p.editing().orElseThrow(), now);
          ledger.seen(line.section(), ledger.holdings(line.section()), now.byId());
          lines.done(line.id(), editEnd(p, moved.size()), now.counts());
        });
  }

  /** What the platform calls the items of the steps. */
  private static Map<ItemKey, String> ids(Work w) {
    Map<ItemKey, String> ids = new HashMap<>();
    w.plan().steps().forEach(s -> w.id(s.key()).ifPresent(id -> ids.put(s.key(), id)));
    return ids;
  }

  private static String editEnd(Planned p, int moved) {
    long left =
        p.steps().stream()
            .filter(s -> s.kind() == StepKind.BLOCKED || s.kind() == StepKind.KEEP)
            .count();
    String what =
        moved == 0
            ? "nothing was to do"
            : p.line().editBack()
                ? "taken back"
                : "done in " + moved + (moved == 1 ? " item" : " items");
    return left == 0
        ? what
        : what + (left == 1 ? "; 1 item left as it is" : "; " + left + " items left as they are");
  }

  /** Where the section stands now; of a part of a version it may stay where it was. */
  private void stand(Planned p, Origin origin, Count count) {
    if (p.untouched()) {
      return;
    }
    if (p.back().isPresent()) {
      takenBack.stand(p.line(), origin);
      return;
    }
    if (p.meant().parts().keys().isEmpty()) {
      ledger.standing(origin, count.expected, count.withheld);
      return;
    }
    Map<ItemKey, Base> after = Ledger.bases(ledger.holdings(origin.section()), origin.master());
    Tree whole = texts.whole(p.version(), p.line());
    boolean another = ledger.standsElsewhere(origin);
    Stands s = Stands.after(whole, p.meant().parts(), p.line().parts(), after, another);
    if (s.atVersion()) {
      Tree version = p.version().tree();
      int expected = (int) whole.nodes().stream().filter(n -> version.has(n.key())).count();
      ledger.standing(origin, expected, count.withheld + s.withheld());
    }
  }

  /** Items that the shell shows otherwise than they were written, though nobody touched them. */
  private static Map<ItemKey, Fingerprints> became(Work w, Reading now) {
    Map<ItemKey, Fingerprints> all = new HashMap<>();
    for (Step s : w.plan().steps()) {
      if (s.moves()) {
        w.id(s.key())
            .flatMap(now::item)
            .filter(h -> untouched(h, now, w))
            .map(Held::aspects)
            .filter(shown -> s.sides().becomes().filter(shown::equals).isEmpty())
            .ifPresent(shown -> all.put(s.key(), shown));
      }
    }
    return all;
  }

  private static boolean untouched(Held held, Reading now, Work w) {
    String left = w.left().get(held.id());
    return left == null || left.equals(now.revisions().get(held.id()));
  }

  private static Optional<Receipt> receipt(Step s, Optional<Held> held, Reading now, Work w) {
    boolean untouched = held.map(h -> untouched(h, now, w)).orElse(true);
    Optional<Base> base = Optional.ofNullable(w.plan().bases().get(s.key()));
    Optional<Receipt> noted =
        Receipt.of(s, held, untouched, base)
            .or(
                () ->
                    base.filter(
                            b -> held.isPresent() && w.plan().meets().equals(Optional.of(b.key())))
                        .map(Receipt::met));
    return w.plan().back().map(b -> b.rule().noted(s, noted, base)).orElse(noted);
  }

  private static String end(Planned p, boolean moved, Count count) {
    String nowhere =
        count.noPlace == 0
            ? ""
            : "; this shell has no such place, so " + count.noPlace + " did not come";
    nowhere +=
        count.noWeek == 0
            ? ""
            : "; this shell has too few places for weeks, so " + count.noWeek + " did not come";
    String local =
        count.kept == 0
            ? ""
            : count.kept == 1 ? "; 1 local change kept" : "; " + count.kept + " local changes kept";
    if (p.untouched()) {
      return p.because(Step.Reason.EMPTIED)
          ? "left as it is: this shell was emptied"
          : "left as it is: students have handed in work here, so it is not cleared";
    }
    if (p.back().isPresent()) {
      return takenBackEnd(p, moved, count);
    }
    if (!moved) {
      String all = nothingToDo(p.version().number());
      boolean whole = p.meant().parts().keys().isEmpty();
      return count.noPlace + count.noWeek > 0
          ? "nothing came" + nowhere + local
          : (whole ? all : all.replace("holds", "holds these parts of")) + local;
    }
    return count.missing == 0
        ? "read back, all as meant" + nowhere + local
        : "read back, " + count.missing + " items are not there" + local;
  }

  private static String takenBackEnd(Planned p, boolean moved, Count count) {
    long left = p.steps().stream().filter(s -> s.kind() == StepKind.BLOCKED).count() + count.kept;
    String what = moved ? "taken back" : "taken back: nothing was to do";
    return left == 0
        ? what
        : what + (left == 1 ? "; 1 item left as it is" : "; " + left + " items left as they are");
  }

  static String nothingToDo(int version) {
    return "nothing to do: it holds version " + version;
  }

  private static String nowhere(int dead) {
    return dead == 0
        ? ""
        : dead == 1
            ? "; 1 reference leads nowhere and was left out"
            : "; " + dead + " references lead nowhere and were left out";
  }
}
