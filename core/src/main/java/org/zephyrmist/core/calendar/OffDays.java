package org.zephyrmist.core.calendar;

import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.OffRule;
import org.zephyrmist.core.content.When;

/**
 * What becomes of dates on days off: as a date itself says, else as for its item, else as for its
 * kind, else as for all. Weekends are no days off.
 */
public record OffDays(OffRule rule, Map<Kind, OffRule> byKind, Map<ItemKey, OffRule> byItem) {
  public static final OffDays USUAL = new OffDays(OffRule.NEXT_TEACHING_DAY, Map.of(), Map.of());

  public OffDays {
    byKind = Map.copyOf(byKind);
    byItem = Map.copyOf(byItem);
  }

  OffRule of(When when, ItemKey item, Kind kind) {
    return when.off()
        .or(() -> Optional.ofNullable(byItem.get(item)))
        .or(() -> Optional.ofNullable(byKind.get(kind)))
        .orElse(rule);
  }

  /** Where a day goes that is off; in the end always a day that is none, but by {@code LEAVE}. */
  static LocalDate moved(LocalDate day, OffRule rule, CountedDays days) {
    return switch (rule) {
      case LEAVE -> day;
      case NEXT_TEACHING_DAY -> days.from(day).orElseGet(days::lastDay);
      case TEACHING_DAY_BEFORE -> days.until(day).orElseGet(days::firstDay);
      case SAME_WEEKDAY_EARLIER -> byWeeks(day, -7, days);
      case SAME_WEEKDAY_LATER -> byWeeks(day, 7, days);
    };
  }

  /** If there is no such week in the term, the nearest teaching day on that side. */
  private static LocalDate byWeeks(LocalDate day, int step, CountedDays days) {
    LocalDate at = day;
    while (days.calendar().teaching().contains(at)) {
      at = at.plusDays(step);
      if (days.calendar().teaching().contains(at) && days.calendar().off(at).isEmpty()) {
        return at;
      }
    }
    return step < 0
        ? days.until(day).orElseGet(days::firstDay)
        : days.from(day).orElseGet(days::lastDay);
  }
}
