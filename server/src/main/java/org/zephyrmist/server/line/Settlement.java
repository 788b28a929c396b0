package org.zephyrmist.server.line;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.Receipt;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.server.ledger.Ledger;
import org.zephyrmist.server.master.Versions;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.platform.PlatformGateway.Write;
import org.zephyrmist.server.platform.PlatformGateway.Written;
import org.zephyrmist.server.shell.Ours;
import org.zephyrmist.server.shell.Reading;
import org.zephyrmist.server.shell.ShellReader;
import org.zephyrmist.server.shell.ShellTranslator;

/**
 * After a server died or a platform failed in the middle of a line: finds out what became of the
 * steps that were sent, by sending them again under the same keys, and gives them their receipts.
 * Only then may anything of the section be planned.
 */
@Component
class Settlement {
  private final Lines lines;
  private final PlannedSteps stored;
  private final Ledger ledger;
  private final ShellReader reader;
  private final Versions versions;
  private final Forms forms;
  private final Writes writes;
  private final TransactionTemplate transaction;
  private final TakenBack takenBack;
  private final EditLines editLines;

  Settlement(
      Lines lines,
      PlannedSteps stored,
      Ledger ledger,
      ShellReader reader,
      Versions versions,
      Forms forms,
      Writes writes,
      TransactionTemplate transaction,
      TakenBack takenBack,
      EditLines editLines) {
    this.editLines = editLines;
    this.takenBack = takenBack;
    this.lines = lines;
    this.stored = stored;
    this.ledger = ledger;
    this.reader = reader;
    this.versions = versions;
    this.forms = forms;
    this.writes = writes;
    this.transaction = transaction;
  }

  /**
   * Settles whatever broke off in the section of a line, also of other lines.
   *
   * @param mine the line whose worker has the section
   */
  void settle(Line mine, PlatformGateway gateway) {
    Map<UUID, List<StoredStep>> byLine = new LinkedHashMap<>();
    stored
        .unsettled(mine.section())
        .forEach(s -> byLine.computeIfAbsent(s.line(), k -> new ArrayList<>()).add(s));
    byLine.forEach(
        (line, steps) -> {
          if (comes(mine, line, gateway)) {
            settle(mine, lines.get(line), steps, gateway);
          }
        });
  }

  /**
   * Whether what was written of a line comes. A package that was not written to its end is put
   * away, and is made anew.
   */
  private boolean comes(Line mine, UUID line, PlatformGateway gateway) {
    if (!gateway.byPackage() || lines.allWritten(line)) {
      gateway.arrived(mine.shell().there());
      return true;
    }
    gateway.putAway(mine.shell().there());
    transaction.executeWithoutResult(
        t -> {
          lines.hold(mine);
          stored.neverCame(line);
        });
    return false;
  }

  private void settle(Line mine, Line of, List<StoredStep> sent, PlatformGateway gateway) {
    Versions.Version version = versions.get(of.version());
    UUID master = version.master();
    List<Step> steps = sent.stream().map(StoredStep::step).toList();
    Optional<Editing> editing =
        of.edits()
            ? Optional.of(editLines.settling(of, ledger.holdings(mine.section()), steps))
            : Optional.empty();
    Optional<TakenBack.Back> back = takenBack.of(of);
    Forms.Within within =
        of.edits() ? new Forms.Within(of.id(), k -> true) : within(mine, of, version, back);
    Map<ItemKey, Forms.Written> written = forms.of(within, steps);
    List<StoredStep> done =
        resend(
            mine,
            of,
            sent,
            written,
            s -> EditLines.master(editing, master, s.key()),
            editing,
            gateway);
    if (done.isEmpty()) {
      return;
    }
    if (editing.isPresent()) {
      edited(mine, of, done, editing.get(), gateway);
      return;
    }
    Reading reading = reader.read(gateway, mine.shell(), with(new Ours(), s -> master, done));
    List<StoredStep> came =
        gateway.byPackage() ? done.stream().filter(s -> came(s, reading)).toList() : done;
    settled(mine, of, came, reading, master, written, back);
    if (came.size() < done.size()) { // it is planned anew, and comes with the next package
      stored.neverCame(of.id());
    }
  }

  private static boolean came(StoredStep s, Reading reading) {
    return s.step().kind() != StepKind.ADD || s.platformItem().flatMap(reading::item).isPresent();
  }

  private void settled(
      Line mine,
      Line of,
      List<StoredStep> done,
      Reading reading,
      UUID master,
      Map<ItemKey, Forms.Written> written,
      Optional<TakenBack.Back> back) {
    Map<ItemKey, Base> bases = Ledger.bases(reading.holdings(), master);
    List<Receipt> receipts =
        done.stream()
            .flatMap(
                s -> {
                  Optional<Base> base = Optional.ofNullable(bases.get(s.step().key()));
                  Optional<Receipt> r = receipt(s, reading, base, written);
                  return back.map(b -> b.rule().noted(s.step(), r, base)).orElse(r).stream();
                })
            .toList();
    transaction.executeWithoutResult(
        t -> {
          lines.hold(mine);
          takenBack.record(of.origin(master), receipts, back);
          stored.recorded(of.id(), done.stream().map(s -> s.step().key().value()).toList());
          stored.became(of.id(), became(done, reading));
        });
  }

  /** Items that the shell shows otherwise than they were written, though nobody touched them. */
  private static Map<ItemKey, Fingerprints> became(List<StoredStep> done, Reading reading) {
    Map<ItemKey, Fingerprints> all = new HashMap<>();
    for (StoredStep s : done) {
      if (untouched(s, reading)) {
        s.platformItem()
            .flatMap(reading::item)
            .map(Held::aspects)
            .filter(shown -> s.step().sides().becomes().filter(shown::equals).isEmpty())
            .ifPresent(shown -> all.put(s.step().key(), shown));
      }
    }
    return all;
  }

  private static boolean untouched(StoredStep s, Reading reading) {
    return s.leftRevision()
        .filter(r -> s.platformItem().map(reading.revisions()::get).filter(r::equals).isPresent())
        .isPresent();
  }

  private void edited(
      Line mine, Line of, List<StoredStep> done, Editing editing, PlatformGateway gateway) {
    Map<ItemKey, String> ids = new HashMap<>();
    done.forEach(s -> s.platformItem().ifPresent(id -> ids.put(s.step().key(), id)));
    Reading now = reader.read(gateway, mine.shell(), EditLines.tied(editing, ids));
    transaction.executeWithoutResult(
        t -> {
          lines.hold(mine);
          stored.recorded(of.id(), done.stream().map(s -> s.step().key().value()).toList());
          editLines.noted(of, done.stream().map(StoredStep::step).toList(), ids, editing, now);
        });
  }

  private Forms.Within within(
      Line mine, Line of, Versions.Version version, Optional<TakenBack.Back> back) {
    if (back.isEmpty()) {
      return Forms.Within.version(version);
    }
    Set<ItemKey> known =
        new HashSet<>(Ledger.bases(ledger.holdings(mine.section()), version.master()).keySet());
    known.addAll(back.get().rule().keys());
    return new Forms.Within(of.id(), known::contains);
  }

  private static Ours with(Ours ours, Function<Step, UUID> master, List<StoredStep> done) {
    done.forEach(
        s ->
            s.platformItem().ifPresent(id -> ours.put(master.apply(s.step()), s.step().key(), id)));
    return ours;
  }

  /**
   * What was under way when it broke off is sent once more; the platform knows the keys. A step
   * that cannot be done any more, because its item is not as it was, is left to the next plan.
   */
  private List<StoredStep> resend(
      Line mine,
      Line of,
      List<StoredStep> sent,
      Map<ItemKey, Forms.Written> written,
      Function<Step, UUID> master,
      Optional<Editing> editing,
      PlatformGateway gateway) {
    List<StoredStep> done = new ArrayList<>(sent.stream().filter(StoredStep::done).toList());
    Ours ours = with(Ours.of(ledger.holdings(mine.section())), master, done);
    done.forEach(
        s -> s.platformItem().ifPresent(id -> EditLines.again(ours, editing, s.step().key(), id)));
    ShellTranslator translator = reader.translator(gateway, mine.shell(), ours);
    for (StoredStep s : sent.stream().filter(x -> !x.done()).toList()) {
      ItemKey key = s.step().key();
      Write w =
          writes
              .make(
                  s.sentKey().orElseThrow(),
                  s.step(),
                  Optional.ofNullable(written.get(key)),
                  translator,
                  master.apply(s.step()),
                  s.seenRevision())
              .write();
      try {
        Written now = gateway.apply(mine.shell().there(), List.of(w)).get(w.key());
        ours.put(master.apply(s.step()), key, now.id());
        EditLines.again(ours, editing, key, now.id());
        stored.written(of.takenBy(mine), Map.of(key.value(), now));
        done.add(s.written(now.id(), now.revision()));
      } catch (PlatformException e) {
        if (e.kind() != PlatformException.Kind.CONFLICT) {
          throw e;
        }
        stored.notDone(of.takenBy(mine), List.of(key.value()));
      }
    }
    return done;
  }

  private Optional<Receipt> receipt(
      StoredStep s, Reading reading, Optional<Base> base, Map<ItemKey, Forms.Written> written) {
    Step step = s.step();
    Forms.Written w = written.get(step.key());
    return Receipt.settled(
        step,
        s.platformItem().flatMap(reading::item),
        untouched(s, reading),
        base,
        w == null || lines.allWritten(s.line()) ? Set.of() : w.refers());
  }
}
