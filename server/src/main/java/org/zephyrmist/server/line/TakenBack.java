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
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.CleanStart;
import org.zephyrmist.core.delivery.Receipt;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.TakeBack;
import org.zephyrmist.core.delivery.TakeBack.Done;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.ledger.Ledger;
import org.zephyrmist.server.ledger.Origin;
import org.zephyrmist.server.ledger.Past;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.shell.ShellTranslator;

/** Lines that take back what another delivery did in their section. */
@Component
class TakenBack {
  private final Lines lines;
  private final PlannedSteps stored;
  private final Past past;
  private final Ledger ledger;
  private final Bodies bodies;

  TakenBack(Lines lines, PlannedSteps stored, Past past, Ledger ledger, Bodies bodies) {
    this.lines = lines;
    this.stored = stored;
    this.past = past;
    this.ledger = ledger;
    this.bodies = bodies;
  }

  /**
   * What a line takes back.
   *
   * @param versions from which the items had come before
   */
  record Back(TakeBack rule, Map<ItemKey, UUID> versions) {}

  /** What a line takes back; none if it is an ordinary one. */
  Optional<Back> of(Line line) {
    return line.takesBack().filter(d -> !line.edits()).map(delivery -> of(line, delivery));
  }

  private Back of(Line line, UUID delivery) {
    Map<ItemKey, Optional<Past.Before>> before = past.before(delivery, line.section());
    Map<ItemKey, Step> steps = new LinkedHashMap<>();
    stored.recorded(lines.of(delivery, line.section())).forEach(s -> steps.put(s.key(), s));
    // What no master brought is in no ledger: what of it is here again stays.
    Set<ItemKey> again =
        stored.recorded(line.id()).stream().map(Step::key).collect(Collectors.toSet());
    again.removeAll(before.keySet());
    steps.keySet().removeAll(again);
    Map<ItemKey, ItemKey> parents = parents(steps);
    Set<ItemKey> keys = new HashSet<>(steps.keySet());
    keys.addAll(before.keySet());
    List<Done> done = new ArrayList<>();
    Map<ItemKey, UUID> versions = new HashMap<>();
    for (ItemKey k : keys.stream().sorted().toList()) {
      Optional<Past.Before> was = before.getOrDefault(k, Optional.empty());
      was.ifPresent(w -> versions.put(k, w.version()));
      done.add(
          new Done(
              k,
              Optional.ofNullable(steps.get(k)),
              was.map(Past.Before::base),
              Optional.ofNullable(parents.get(k))));
    }
    return new Back(new TakeBack(done), versions);
  }

  /** The modules in which items stood before. */
  private Map<ItemKey, ItemKey> parents(Map<ItemKey, Step> steps) {
    Map<ItemKey, Fingerprint> places = new HashMap<>();
    steps.forEach(
        (k, s) -> s.sides().here().map(h -> h.get(Aspect.PLACE)).ifPresent(p -> places.put(k, p)));
    Map<Fingerprint, String> forms = bodies.get(new HashSet<>(places.values()));
    Map<ItemKey, ItemKey> parents = new HashMap<>();
    places.forEach(
        (k, p) ->
            AspectForms.place(forms.get(p))
                .parent()
                .flatMap(TakenBack::key)
                .ifPresent(m -> parents.put(k, m)));
    return parents;
  }

  private static Optional<ItemKey> key(String parent) {
    return ShellTranslator.hereId(parent).map(CleanStart::own).or(() -> ItemKey.of(parent));
  }

  /**
   * Makes sure that nothing came since.
   *
   * @throws PlatformException if a later delivery has to be taken back first
   */
  void check(Line line) {
    UUID delivery = line.takesBack().orElseThrow();
    if (!past.receivedSince(delivery, List.of(line.section()), line.delivery()).isEmpty()) {
      throw PlatformException.lasting(
          "This section has received something of the same master since.",
          "Take that back first, then go on.");
    }
  }

  /** Enters what came of a line; each item counts as coming from the version it had come from. */
  void record(Origin o, List<Receipt> receipts, Optional<Back> back) {
    Map<UUID, List<Receipt>> byVersion = new LinkedHashMap<>();
    for (Receipt r : receipts) {
      UUID version =
          back.filter(b -> !r.how().ends())
              .map(b -> b.versions().get(r.base().key()))
              .orElse(o.version());
      byVersion.computeIfAbsent(version, v -> new ArrayList<>()).add(r);
    }
    byVersion.forEach(
        (version, some) ->
            ledger.record(
                new Origin(o.section(), o.master(), version, o.delivery(), o.person()), some));
  }

  /** Where the section stands again. */
  void stand(Line line, Origin o) {
    ledger.standsAgain(o, lines.stood(line.takesBack().orElseThrow(), line.section()));
  }
}
