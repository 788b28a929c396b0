package org.zephyrmist.server.calendar;

import java.time.Clock;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.calendar.CalendarException;
import org.zephyrmist.core.calendar.Dated;
import org.zephyrmist.core.calendar.Fit;
import org.zephyrmist.core.calendar.TermDays;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.server.master.Masters;
import org.zephyrmist.server.people.SignedIn;

/** What a calendar that is to change moves, such as a closure in mid-term. */
@Component
class CalendarMoves {
  private final Calendars calendars;
  private final CalendarEdits edits;
  private final Ribbon ribbon;
  private final SectionDates dates;
  private final Masters masters;
  private final HandedIn handedIn;
  private final Clock clock;

  CalendarMoves(
      Calendars calendars,
      CalendarEdits edits,
      Ribbon ribbon,
      SectionDates dates,
      Masters masters,
      HandedIn handedIn,
      Clock clock) {
    this.handedIn = handedIn;
    this.calendars = calendars;
    this.edits = edits;
    this.ribbon = ribbon;
    this.dates = dates;
    this.masters = masters;
    this.clock = clock;
  }

  /**
   * A due date that moves.
   *
   * @param to none: it has no date any more
   * @param past whether it was due before now
   * @param handedIn whether students have handed in work on it in these sections
   */
  record Moved(
      UUID master,
      String item,
      String course,
      String title,
      LocalDateTime from,
      Optional<LocalDateTime> to,
      List<UUID> sections,
      boolean past,
      boolean handedIn) {}

  /** Due dates of sections within reach that would move; nothing is kept. */
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  public List<Moved> of(UUID calendar, CalendarEntry e, SignedIn who) {
    Calendars.Kept before = edits.kept(calendar);
    Calendars.Kept now =
        new Calendars.Kept(
            before.id(), before.term(), e.name(), before.whole(), e.fit(), e.calendar());
    List<Calendars.Kept> all =
        calendars.of(before.term()).stream().map(k -> k.id().equals(now.id()) ? now : k).toList();
    Ribbon.Term t = ribbon.term(before.term(), who);
    List<Moved> moved = new ArrayList<>();
    Map<UUID, Set<HandedIn.Work>> work =
        handedIn.of(t.groups().values().stream().flatMap(List::stream).map(Ribbon.At::id).toList());
    t.groups()
        .forEach(
            (g, sections) ->
                all.stream()
                    .filter(k -> k.id().equals(g.goes().calendar()))
                    .filter(k -> k == now || now.whole() && k.fit() != Fit.AS_SAID)
                    .findFirst()
                    .ifPresent(
                        mine -> moved(t, g, sections, after(all.get(0), mine, g), work, moved)));
    return moved;
  }

  private static TermDays after(Calendars.Kept whole, Calendars.Kept mine, Ribbon.Group g) {
    try {
      return Calendars.goes(whole, mine, g.goes().meetings()).days();
    } catch (CalendarException e) {
      throw CalendarEntry.refused(e);
    }
  }

  private void moved(
      Ribbon.Term t,
      Ribbon.Group g,
      List<Ribbon.At> sections,
      TermDays after,
      Map<UUID, Set<HandedIn.Work>> work,
      List<Moved> all) {
    LocalDateTime now = LocalDateTime.now(clock.withZone(after.days().calendar().zone()));
    for (Ribbon.Draft d : t.drafts()) {
      List<Ribbon.At> of = t.with(d, sections);
      if (of.isEmpty()) {
        continue;
      }
      Map<ItemKey, Dated> then = g.goes().days().dates(d.items(), d.off());
      Map<ItemKey, Dated> next = after.dates(d.items(), d.off());
      for (Node n : d.tree().nodes()) {
        Optional<LocalDateTime> from = then.get(n.key()).timing().due();
        Optional<LocalDateTime> to = next.get(n.key()).timing().due();
        List<UUID> meant =
            of.stream()
                .filter(s -> n.appliesTo().covers(s.campus(), "", Set.of()))
                .map(Ribbon.At::id)
                .toList();
        if (from.isPresent() && !from.equals(to)) {
          HandedIn.Work here = new HandedIn.Work(d.id(), n.key());
          meant.stream()
              .collect(
                  Collectors.partitioningBy(s -> work.getOrDefault(s, Set.of()).contains(here)))
              .forEach(
                  (handedIn, some) -> {
                    if (!some.isEmpty()) {
                      boolean past = from.get().isBefore(now);
                      all.add(
                          new Moved(
                              d.id(),
                              n.key().value(),
                              g.course(),
                              n.title(),
                              from.get(),
                              to,
                              some,
                              past,
                              handedIn));
                    }
                  });
        }
      }
    }
  }

  /**
   * Changes a calendar.
   *
   * @param keepPast whether what was due before now, and what students have handed in already,
   *     stays where it is
   */
  @Transactional
  public void change(UUID calendar, CalendarEntry e, boolean keepPast, SignedIn who) {
    Map<Map.Entry<UUID, List<UUID>>, List<CalendarApi.SetDate>> kept = new LinkedHashMap<>();
    if (keepPast) {
      for (Moved m : of(calendar, e, who)) {
        if (m.past() || m.handedIn()) {
          kept.computeIfAbsent(Map.entry(m.master(), m.sections()), k -> new ArrayList<>())
              .add(new CalendarApi.SetDate(m.item(), Point.DUE, m.from(), false));
        }
      }
    }
    edits.change(calendar, e, who);
    kept.forEach((k, all) -> dates.set(masters.get(k.getKey(), who), k.getValue(), all, who));
  }
}
