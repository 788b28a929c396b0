package org.zephyrmist.core.calendar;

import java.time.LocalTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.content.DatePattern;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.ModuleDates;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.TimingPattern;
import org.zephyrmist.core.content.When;

/** Gives what stands in a module the openings and closings that the module says. */
final class ModuleOpenings {
  private static final LocalTime END_OF_DAY = LocalTime.of(23, 59);
  private static final DatePattern END = new DatePattern.LastDay(0);

  private ModuleOpenings() {}

  /** The items in their order, with patterns for what they do not say themselves. */
  static List<Undated> given(List<Undated> items) {
    Map<ItemKey, ModuleDates> modules = new HashMap<>();
    items.forEach(i -> i.timing().patterns().within().ifPresent(m -> modules.put(i.key(), m)));
    if (modules.isEmpty()) {
      return items;
    }
    Map<ItemKey, List<Undated>> within = new LinkedHashMap<>();
    items.stream()
        .filter(i -> i.kind() != Kind.MODULE)
        .forEach(
            i ->
                i.parent()
                    .filter(modules::containsKey)
                    .ifPresent(p -> within.computeIfAbsent(p, x -> new ArrayList<>()).add(i)));
    Map<ItemKey, Timing> becomes = new HashMap<>();
    within.forEach((m, all) -> given(modules.get(m), all, becomes));
    return items.stream()
        .map(
            i ->
                new Undated(
                    i.key(), i.kind(), i.parent(), becomes.getOrDefault(i.key(), i.timing())))
        .toList();
  }

  private static void given(ModuleDates m, List<Undated> all, Map<ItemKey, Timing> becomes) {
    for (int i = 0; i < all.size(); i++) {
      Timing t = all.get(i).timing();
      t = without(t, Point.OPENS) ? with(t, Point.OPENS, opens(m, i)) : t;
      boolean lastOfAll = i == all.size() - 1 || m.everyWeeks() == 0;
      When closes =
          m.oneAfterOther() && !lastOfAll ? dayBefore(opens(m, i + 1)) : new When(END, END_OF_DAY);
      t = without(t, Point.CLOSES) ? with(t, Point.CLOSES, closes) : t;
      becomes.put(all.get(i).key(), t);
    }
  }

  private static boolean without(Timing t, Point p) {
    return t.at(p).isEmpty() && t.patterns().at(p).isEmpty();
  }

  private static Timing with(Timing t, Point p, When w) {
    TimingPattern all = t.patterns().with(p, Optional.of(w));
    return t.with(all);
  }

  private static When opens(ModuleDates m, int nth) {
    return m.start().on(later(m.start().pattern(), nth * m.everyWeeks() * 7));
  }

  /** It closes at the end of the day before the next opens. */
  private static When dayBefore(When next) {
    return new When(later(next.pattern(), -1), Optional.of(END_OF_DAY), next.off());
  }

  /**
   * The same pattern so many days later; what is counted by days that are taught, by weeks of 5.
   */
  private static DatePattern later(DatePattern p, int days) {
    if (p instanceof DatePattern.Week w) {
      int at = w.week() * 7 + w.day().getValue() - 1 + days;
      return new DatePattern.Week(Math.max(1, at / 7), java.time.DayOfWeek.of(at % 7 + 1));
    }
    if (p instanceof DatePattern.TeachingDay t) {
      return new DatePattern.TeachingDay(Math.max(1, t.n() + taught(days)));
    }
    if (p instanceof DatePattern.Meeting m) {
      return new DatePattern.Meeting(Math.max(1, m.n() + Math.floorDiv(days, 7)));
    }
    if (p instanceof DatePattern.FirstDay f) {
      return new DatePattern.FirstDay(f.days() + days);
    }
    if (p instanceof DatePattern.LastDay l) {
      return new DatePattern.LastDay(l.days() + days);
    }
    if (p instanceof DatePattern.Beside b) {
      return new DatePattern.Beside(b.days() + days, b.item(), b.point());
    }
    if (p instanceof DatePattern.Fixed f) {
      return new DatePattern.Fixed(f.day().plusDays(days));
    }
    return p;
  }

  private static int taught(int days) {
    return days % 7 == 0 ? days / 7 * 5 : days;
  }
}
