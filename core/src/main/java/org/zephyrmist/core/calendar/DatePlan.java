package org.zephyrmist.core.calendar;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.DatePattern;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.When;

/**
 * The dates of a section: each pattern of a master as a real day in the section's calendar, days
 * off looked at, items that follow others after those, everything in order. The same input gives
 * the same dates.
 */
public final class DatePlan {
  private static final LocalTime BEGINNING = LocalTime.of(0, 0);
  private final CountedDays days;
  private final OffDays off;
  private final Map<ItemKey, Undated> items = new LinkedHashMap<>();
  private final Map<ItemKey, Map<Point, LocalDateTime>> done = new HashMap<>();
  private final Map<ItemKey, List<Remark>> remarks = new HashMap<>();
  private final Map<ItemKey, Map<Point, LocalDate>> said = new HashMap<>();
  private final Set<String> underway = new HashSet<>();
  private final Set<String> ended = new HashSet<>();

  private DatePlan(List<Undated> all, CountedDays days, OffDays off) {
    this.days = days;
    this.off = off;
    ModuleOpenings.given(all).forEach(i -> items.put(i.key(), i));
  }

  /** All items in their order, those without dates too. */
  public static Map<ItemKey, Dated> of(List<Undated> items, CountedDays days, OffDays off) {
    return new DatePlan(items, days, off).all();
  }

  private Map<ItemKey, Dated> all() {
    for (ItemKey k : items.keySet()) {
      for (Point p : Point.values()) {
        day(k, p);
      }
    }
    Map<ItemKey, Dated> all = new LinkedHashMap<>();
    for (Undated i : items.values()) {
      all.put(i.key(), new Dated(timing(i), told(i.key())));
    }
    return TwoOnOneDay.told(all, said);
  }

  private List<Remark> told(ItemKey k) {
    return remarks.getOrDefault(k, List.of());
  }

  private void tell(ItemKey k, Remark.Kind kind, Point p, LocalDate said, String off) {
    remarks.computeIfAbsent(k, x -> new ArrayList<>()).add(new Remark(kind, p, said, off));
  }

  /** The day of a point of an item, computed when it is first asked for. */
  private Optional<LocalDate> day(ItemKey k, Point p) {
    Undated i = items.get(k);
    if (i == null) {
      return Optional.empty();
    }
    String id = k + " " + p;
    if (underway.contains(id)) {
      return Optional.empty();
    }
    if (ended.add(id)) {
      underway.add(id);
      compute(i, p);
      underway.remove(id);
    }
    return Optional.ofNullable(done.get(k)).map(d -> d.get(p)).map(LocalDateTime::toLocalDate);
  }

  private void compute(Undated i, Point p) {
    Optional<When> pattern = i.timing().patterns().at(p);
    if (pattern.isEmpty()) {
      i.timing().at(p).ifPresent(at -> real(i, p, at));
      return;
    }
    When w = pattern.get();
    Optional<LocalDate> beside = Optional.empty();
    if (w.pattern() instanceof DatePattern.Beside b) {
      if (underway.contains(b.item() + " " + b.point())) {
        tell(i.key(), Remark.Kind.CIRCLE, p, days.firstDay(), "");
        return;
      }
      beside = day(b.item(), b.point());
    }
    Laid laid = Laid.of(w.pattern(), days, beside);
    laid.remark()
        .ifPresent(
            r -> tell(i.key(), r, p, laid.said().or(laid::day).orElseGet(days::firstDay), ""));
    laid.day().ifPresent(d -> set(i, p, d, laid.said().orElse(d), w));
  }

  /** A date that the master has as a real one stays what it is. */
  private void real(Undated i, Point p, LocalDateTime at) {
    if (!days.inTerm(at.toLocalDate())) {
      tell(i.key(), Remark.Kind.OUTSIDE, p, at.toLocalDate(), "");
    }
    days.calendar()
        .off(at.toLocalDate())
        .ifPresent(o -> tell(i.key(), Remark.Kind.ON_DAY_OFF, p, at.toLocalDate(), o.name()));
    put(i.key(), p, at, at.toLocalDate());
  }

  private void set(Undated i, Point p, LocalDate day, LocalDate asSaid, When w) {
    LocalDate on = day;
    Optional<DaysOff> in = days.calendar().off(day);
    if (in.isPresent() && !w.pattern().fixed()) {
      on = OffDays.moved(day, off.of(w, i.key(), i.kind()), days);
    }
    if (in.isPresent()) {
      Remark.Kind kind = on.equals(day) ? Remark.Kind.ON_DAY_OFF : Remark.Kind.MOVED_OFF_DAY;
      tell(i.key(), kind, p, day, in.get().name());
    }
    LocalTime at = w.at().or(() -> days.meetings().begins(day.getDayOfWeek())).orElse(BEGINNING);
    put(i.key(), p, on.atTime(at), asSaid);
  }

  private void put(ItemKey k, Point p, LocalDateTime at, LocalDate asSaid) {
    done.computeIfAbsent(k, x -> new EnumMap<>(Point.class)).put(p, at);
    said.computeIfAbsent(k, x -> new EnumMap<>(Point.class)).put(p, asSaid);
  }

  /** It opens before it is due, and is due before it closes; the due date stays. */
  private Timing timing(Undated i) {
    Map<Point, LocalDateTime> at = done.getOrDefault(i.key(), Map.of());
    Optional<LocalDateTime> due = Optional.ofNullable(at.get(Point.DUE));
    Optional<LocalDateTime> opens = Optional.ofNullable(at.get(Point.OPENS));
    Optional<LocalDateTime> closes = Optional.ofNullable(at.get(Point.CLOSES));
    Optional<LocalDateTime> end = due.isPresent() ? due : closes;
    if (opens.isPresent() && end.isPresent() && opens.get().isAfter(end.get())) {
      tell(i.key(), Remark.Kind.IN_ORDER, Point.OPENS, opens.get().toLocalDate(), "");
      opens = Optional.of(end.get().toLocalDate().atTime(BEGINNING));
    }
    if (due.isPresent() && closes.isPresent() && closes.get().isBefore(due.get())) {
      tell(i.key(), Remark.Kind.IN_ORDER, Point.CLOSES, closes.get().toLocalDate(), "");
      closes = due;
    }
    return new Timing(opens, due, closes);
  }
}
