package org.zephyrmist.core.calendar;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.content.ItemKey;

/**
 * By what days a section goes.
 *
 * @param fitted how the patterns of the whole term come into them, of a part of it
 */
public record TermDays(CountedDays days, Optional<Fitted> fitted) {
  /** The dates of a master's items there. */
  public Map<ItemKey, Dated> dates(List<Undated> items, OffDays off) {
    return DatePlan.of(fitted.map(f -> f.of(items)).orElse(items), days, off);
  }
}
