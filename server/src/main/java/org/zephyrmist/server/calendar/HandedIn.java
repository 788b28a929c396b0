package org.zephyrmist.server.calendar;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.server.ledger.Holdings;
import org.zephyrmist.server.shell.KeptReadings;

/** On what students have handed in work, as shells were read last. */
@Component
class HandedIn {
  private final KeptReadings readings;
  private final Holdings holdings;

  HandedIn(KeptReadings readings, Holdings holdings) {
    this.readings = readings;
    this.holdings = holdings;
  }

  /** An item of a master. */
  record Work(UUID master, ItemKey item) {}

  /** By section; sections in which nothing was handed in are left out. */
  Map<UUID, Set<Work>> of(Collection<UUID> sections) {
    Map<UUID, Set<String>> ids = new HashMap<>();
    readings
        .of(sections)
        .forEach(
            (section, kept) -> {
              Set<String> work =
                  kept.items().stream()
                      .filter(Held::studentWork)
                      .map(Held::id)
                      .collect(Collectors.toSet());
              if (!work.isEmpty()) {
                ids.put(section, work);
              }
            });
    Map<UUID, Set<Work>> all = new HashMap<>();
    this.holdings
        .of(ids.keySet())
        .forEach(
            (section, holdings) ->
                holdings.stream()
                    .filter(h -> ids.get(section).contains(h.platformItem()))
                    .forEach(
                        h ->
                            all.computeIfAbsent(section, k -> new HashSet<>())
                                .add(new Work(h.master(), h.base().key()))));
    return all;
  }
}
