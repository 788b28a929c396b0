package org.zephyrmist.server.delivery;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Receipt;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.server.db.tables.records.DeliveryStepRecord;
import org.zephyrmist.server.db.tables.records.SectionRecord;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.platform.PlatformGateway.Written;

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
  private final VersionContent versions;
  private final Writes writes;
  private final TransactionTemplate transaction;

  Settlement(
      Lines lines,
      PlannedSteps stored,
      Ledger ledger,
      ShellReader reader,
      VersionContent versions,
      Writes writes,
      TransactionTemplate transaction) {
    this.lines = lines;
    this.stored = stored;
    this.ledger = ledger;
    this.reader = reader;
    this.versions = versions;
    this.writes = writes;
    this.transaction = transaction;
  }

  void settle(SectionRecord section, PlatformGateway gateway) {
    Map<UUID, List<DeliveryStepRecord>> byLine = new LinkedHashMap<>();
    stored
        .unsettled(section.getId())
        .forEach(s -> byLine.computeIfAbsent(s.getLineId(), k -> new ArrayList<>()).add(s));
    byLine.forEach(
        (line, steps) -> {
          Lines.Open o = lines.open(line);
          settle(new Lines.Open(o.line(), o.delivery(), section), steps, gateway);
        });
  }

  private void settle(Lines.Open open, List<DeliveryStepRecord> steps, PlatformGateway gateway) {
    VersionContent.Loaded version = versions.load(open.delivery().getVersionId());
    Map<ItemKey, VersionContent.Live> items =
        versions.items(
            version,
            steps.stream()
                .map(s -> new ItemKey(s.getItemKey()))
                .filter(version.nodes()::containsKey)
                .toList());
    resend(open, steps, items, version, gateway);
    if (steps.isEmpty()) {
      return;
    }
    Ours fresh = new Ours();
    steps.forEach(
        s -> fresh.put(version.master(), new ItemKey(s.getItemKey()), s.getPlatformItem()));
    ShellReader.Reading reading = reader.read(gateway, open.section(), fresh);
    Map<ItemKey, Base> bases = Ledger.bases(reading.holdings(), version.master());
    List<Receipt> receipts = new ArrayList<>();
    for (DeliveryStepRecord s : steps) {
      receipt(s, reading, bases, items).ifPresent(receipts::add);
    }
    transaction.executeWithoutResult(
        t -> {
          lines.hold(open.section());
          ledger.record(origin(open, version), receipts);
          stored.recorded(
              open.line().getId(), steps.stream().map(DeliveryStepRecord::getItemKey).toList());
        });
  }

  static Ledger.Origin origin(Lines.Open open, VersionContent.Loaded version) {
    return new Ledger.Origin(
        open.section().getId(),
        version.master(),
        version.id(),
        open.delivery().getId(),
        Optional.ofNullable(open.delivery().getConfirmedBy()).orElse(open.delivery().getMadeBy()));
  }

  /**
   * What was under way when it broke off is sent once more; the platform knows the keys. A step
   * that cannot be done any more, because its item is not as it was, is left to the next plan.
   */
  private void resend(
      Lines.Open open,
      List<DeliveryStepRecord> steps,
      Map<ItemKey, VersionContent.Live> items,
      VersionContent.Loaded version,
      PlatformGateway gateway) {
    List<DeliveryStepRecord> inFlight = steps.stream().filter(s -> !s.getDone()).toList();
    if (inFlight.isEmpty()) {
      return;
    }
    UUID master = version.master();
    Ours ours = Ours.of(ledger.holdings(open.section().getId()));
    steps.stream()
        .filter(DeliveryStepRecord::getDone)
        .forEach(s -> ours.put(master, new ItemKey(s.getItemKey()), s.getPlatformItem()));
    ShellTranslator translator = writes.translator(open.section(), ours);
    for (DeliveryStepRecord s : inFlight) {
      PlatformGateway.Write w = writes.again(s, items, translator, master);
      try {
        Written now = gateway.apply(open.section().getShell(), List.of(w)).get(w.key());
        s.setPlatformItem(now.id());
        s.setLeftRevision(now.revision());
        ours.put(master, new ItemKey(s.getItemKey()), now.id());
        stored.written(open, Map.of(s.getItemKey(), now));
      } catch (PlatformException e) {
        if (e.kind() != PlatformException.Kind.CONFLICT) {
          throw e;
        }
        stored.notDone(open, List.of(s.getItemKey()));
        steps.remove(s);
      }
    }
  }

  private Optional<Receipt> receipt(
      DeliveryStepRecord r,
      ShellReader.Reading reading,
      Map<ItemKey, Base> bases,
      Map<ItemKey, VersionContent.Live> items) {
    Step s = stored.step(r);
    Optional<Fingerprints> meant = Optional.ofNullable(r.getMeant()).map(Fingerprints::unpack);
    String revision = reading.revisions().get(r.getPlatformItem());
    boolean untouched = r.getLeftRevision() != null && r.getLeftRevision().equals(revision);
    Optional<Receipt> receipt =
        Receipt.of(
            s,
            meant,
            Optional.ofNullable(reading.byId().get(r.getPlatformItem())),
            untouched,
            Optional.ofNullable(bases.get(s.key())));
    return s.writes().contains(Aspect.WORDING) && refersToItems(items.get(s.key()))
        ? receipt.map(Receipt::unfinished)
        : receipt;
  }

  private static boolean refersToItems(VersionContent.Live item) {
    return !References.items(AspectForms.html(item.item().content())).isEmpty();
  }
}
