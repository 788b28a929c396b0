package org.zephyrmist.core.calendar;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Point;

/**
 * Tells of deadlines that meet on a day though the master has them on different ones. What the
 * master itself puts on one day is meant so.
 */
final class TwoOnOneDay {
  private TwoOnOneDay() {}

  static Map<ItemKey, Dated> told(
      Map<ItemKey, Dated> items, Map<ItemKey, Map<Point, LocalDate>> said) {
    Map<LocalDate, List<ItemKey>> byDay = new HashMap<>();
    items.forEach(
        (k, d) ->
            d.timing()
                .due()
                .ifPresent(
                    at -> byDay.computeIfAbsent(at.toLocalDate(), x -> new ArrayList<>()).add(k)));
    Map<ItemKey, Dated> all = new LinkedHashMap<>(items);
    byDay.forEach(
        (day, keys) -> {
          boolean asSaid = keys.stream().map(k -> due(said, k)).distinct().count() <= 1;
          if (!asSaid) {
            keys.forEach(k -> all.computeIfPresent(k, (x, d) -> with(d, due(said, k))));
          }
        });
    return all;
  }

  private static LocalDate due(Map<ItemKey, Map<Point, LocalDate>> said, ItemKey k) {
    return Optional.ofNullable(said.get(k)).map(m -> m.get(Point.DUE)).orElse(LocalDate.MIN);
  }

  private static Dated with(Dated d, LocalDate said) {
    List<Remark> all = new ArrayList<>(d.remarks());
    all.add(new Remark(Remark.Kind.TWO_ON_ONE_DAY, Point.DUE, said, ""));
    return new Dated(d.timing(), all);
  }
}
