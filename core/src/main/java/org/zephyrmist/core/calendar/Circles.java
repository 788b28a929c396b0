package org.zephyrmist.core.calendar;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.DatePattern;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.TimingPattern;

/** Finds dates that follow each other in a circle, so that none of them could be known. */
public final class Circles {
  private record At(ItemKey item, Point point) {}

  private Circles() {}

  /** The items of a circle that one of them is in, in the order in which they follow; or none. */
  public static Optional<List<ItemKey>> of(Map<ItemKey, TimingPattern> all, ItemKey from) {
    Map<At, At> follows = new HashMap<>();
    all.forEach(
        (k, t) -> {
          for (Point p : Point.values()) {
            if (t.at(p).map(w -> w.pattern()).orElse(null) instanceof DatePattern.Beside b) {
              follows.put(new At(k, p), new At(b.item(), b.point()));
            }
          }
        });
    for (Point p : Point.values()) {
      Set<At> way = new LinkedHashSet<>();
      At at = new At(from, p);
      while (at != null && way.add(at)) {
        at = follows.get(at);
      }
      if (at != null) {
        List<At> whole = new ArrayList<>(way);
        return Optional.of(
            whole.subList(whole.indexOf(at), whole.size()).stream().map(At::item).toList());
      }
    }
    return Optional.empty();
  }
}
