package org.zephyrmist.core.calendar;

import java.time.LocalDateTime;
import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.Timing;

/** Dates that were set for one section, whatever a pattern says; an empty one: it has none. */
public record OwnDates(Map<ItemKey, Map<Point, Optional<LocalDateTime>>> of) {
  public static final OwnDates NONE = new OwnDates(Map.of());

  public OwnDates {
    of = Map.copyOf(of);
  }

  /** The timing of an item with them. */
  public Timing on(ItemKey item, Timing t) {
    Timing to = t;
    for (Map.Entry<Point, Optional<LocalDateTime>> e : of.getOrDefault(item, Map.of()).entrySet()) {
      to = to.with(e.getKey(), e.getValue());
    }
    return to;
  }
}
