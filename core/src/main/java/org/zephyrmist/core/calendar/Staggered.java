package org.zephyrmist.core.calendar;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import org.zephyrmist.core.content.DatePattern;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.ModuleDates;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.TimingPattern;
import org.zephyrmist.core.content.When;

/**
 * What a module opens week after week, in a part of the term: each opening by the share of teaching
 * days, as dates are laid, and never after half of the way to its due date. The way is as many
 * teaching days as the share leaves of those between opening and due date in the whole term.
 */
final class Staggered {
  private final CountedDays whole;
  private final CountedDays part;
  private final Fitted fitted;
  private final Map<ItemKey, Undated> asSaid = new HashMap<>();

  Staggered(CountedDays whole, CountedDays part, Fitted fitted) {
    this.whole = whole;
    this.part = part;
    this.fitted = fitted;
  }

  /**
   * @param items with the patterns of the whole term
   * @param laid the same, each pattern laid into the part
   * @return these with the openings of their modules
   */
  List<Undated> of(List<Undated> items, List<Undated> laid) {
    Set<ItemKey> weekly =
        items.stream()
            .filter(i -> i.timing().patterns().within().filter(this::isLaid).isPresent())
            .map(Undated::key)
            .collect(Collectors.toSet());
    if (weekly.isEmpty()) {
      return laid;
    }
    items.forEach(i -> asSaid.put(i.key(), i));
    Map<ItemKey, Timing> opened = new HashMap<>();
    ModuleOpenings.given(items).forEach(i -> opened.put(i.key(), i.timing()));
    Map<ItemKey, ItemKey> next = next(items, weekly);
    return laid.stream().map(i -> staggered(i, weekly, opened, next)).toList();
  }

  /** By meetings or beside another item they stay as they are said, all at once have one day. */
  private boolean isLaid(ModuleDates m) {
    DatePattern p = m.start().pattern();
    return m.everyWeeks() > 0
        && !(p instanceof DatePattern.Meeting)
        && !(p instanceof DatePattern.Beside);
  }

  /** What opens after what, in one module. */
  private static Map<ItemKey, ItemKey> next(List<Undated> items, Set<ItemKey> weekly) {
    Map<ItemKey, ItemKey> next = new HashMap<>();
    Map<ItemKey, ItemKey> before = new HashMap<>();
    for (Undated i : items) {
      if (i.kind() != Kind.MODULE && i.parent().filter(weekly::contains).isPresent()) {
        ItemKey module = i.parent().orElseThrow();
        Optional.ofNullable(before.put(module, i.key())).ifPresent(b -> next.put(b, i.key()));
      }
    }
    return next;
  }

  private Undated staggered(
      Undated i, Set<ItemKey> weekly, Map<ItemKey, Timing> opened, Map<ItemKey, ItemKey> next) {
    Timing t = i.timing();
    if (weekly.contains(i.key())) {
      return with(i, t.with(t.patterns().within(Optional.empty())));
    }
    Optional<ItemKey> module = i.parent().filter(weekly::contains);
    if (module.isEmpty() || i.kind() == Kind.MODULE) {
      return i;
    }
    Timing own = asSaid.get(i.key()).timing();
    TimingPattern all = t.patterns();
    TimingPattern said = opened.get(i.key()).patterns();
    if (ModuleOpenings.without(own, Point.OPENS)) {
      all = all.with(Point.OPENS, said.opens().map(w -> opens(w, own)));
    }
    if (ModuleOpenings.without(own, Point.CLOSES)) {
      ModuleDates m = asSaid.get(module.orElseThrow()).timing().patterns().within().orElseThrow();
      Optional<When> closes =
          m.oneAfterOther() && next.containsKey(i.key())
              ? Optional.of(ModuleOpenings.dayBeforeOpening(next.get(i.key())))
              : said.closes();
      all = all.with(Point.CLOSES, closes);
    }
    return with(i, t.with(all));
  }

  private static Undated with(Undated i, Timing t) {
    return new Undated(i.key(), i.kind(), i.parent(), t);
  }

  private When opens(When said, Timing own) {
    OptionalInt open = nth(said, whole);
    if (open.isEmpty()) {
      return said;
    }
    int at = fitted.share(open.getAsInt());
    Optional<When> due = own.patterns().due();
    OptionalInt dueWhole = due.map(d -> nth(d, whole)).orElse(OptionalInt.empty());
    OptionalInt duePart = due.map(fitted::laid).map(d -> nth(d, part)).orElse(OptionalInt.empty());
    if (dueWhole.isPresent() && duePart.isPresent()) {
      int way = Math.max(1, fitted.share(dueWhole.getAsInt()) - at);
      at = Math.max(1, Math.min(at, duePart.getAsInt() - (way + 1) / 2));
    }
    return said.on(new DatePattern.TeachingDay(at));
  }

  /** Which teaching day the day of a pattern counts as; none of one that another item tells. */
  private static OptionalInt nth(When w, CountedDays in) {
    if (w.pattern() instanceof DatePattern.Beside) {
      return OptionalInt.empty();
    }
    Optional<LocalDate> day = Laid.of(w.pattern(), in, Optional.empty()).day();
    return day.map(d -> OptionalInt.of(nth(d, in))).orElse(OptionalInt.empty());
  }

  private static int nth(LocalDate day, CountedDays in) {
    return in.teachingDay(in.until(day).orElseGet(in::firstDay)).orElseThrow();
  }
}
