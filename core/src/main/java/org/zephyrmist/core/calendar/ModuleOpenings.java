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
import org.zephyrmist.core.content.OffRule;
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
          m.oneAfterOther() && !lastOfAll
              ? before(all.get(i + 1).key(), opens(m, i + 1))
              : new When(END, END_OF_DAY);
      t = without(t, Point.CLOSES) ? with(t, Point.CLOSES, closes) : t;
      becomes.put(all.get(i).key(), t);
    }
  }

  static boolean without(Timing t, Point p) {
    return t.at(p).isEmpty() && t.patterns().at(p).isEmpty();
  }

  private static Timing with(Timing t, Point p, When w) {
    TimingPattern all = t.patterns().with(p, Optional.of(w));
    return t.with(all);
  }

  /** Further than a pattern can say is the end. */
  private static When opens(ModuleDates m, int nth) {
    try {
      return Shifted.by(m.start(), nth * m.everyWeeks() * 7);
    } catch (Shifted.NotPossible tooFar) {
      return new When(END, m.start().at().orElse(END_OF_DAY));
    }
  }

  /** It closes at the end of the day before the next opens; before a meeting that is no meeting. */
  private static When before(ItemKey next, When opens) {
    if (opens.pattern() instanceof DatePattern.Meeting) {
      return dayBeforeOpening(next);
    }
    return new When(Shifted.by(opens, -1).pattern(), Optional.of(END_OF_DAY), opens.off());
  }

  static When dayBeforeOpening(ItemKey next) {
    return new When(
        new DatePattern.Beside(-1, next, Point.OPENS),
        Optional.of(END_OF_DAY),
        Optional.of(OffRule.TEACHING_DAY_BEFORE));
  }
}
