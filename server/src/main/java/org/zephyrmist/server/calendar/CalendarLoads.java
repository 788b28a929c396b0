package org.zephyrmist.server.calendar;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.calendar.CalendarException;
import org.zephyrmist.core.calendar.Dated;
import org.zephyrmist.core.calendar.Meetings;
import org.zephyrmist.core.calendar.Remark;
import org.zephyrmist.core.calendar.TermDays;
import org.zephyrmist.core.calendar.WeekLoad;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.server.people.SignedIn;

/** What each week of a calendar would hold, before anybody goes by it. */
@Component
class CalendarLoads {
  private final Calendars calendars;
  private final Ribbon ribbon;

  CalendarLoads(Calendars calendars, Ribbon ribbon) {
    this.calendars = calendars;
    this.ribbon = ribbon;
  }

  /**
   * A master's items on the days of a calendar.
   *
   * @param together titles that are due on one day and were not
   */
  record Load(UUID master, List<WeekLoad> weeks, List<String> together) {}

  /**
   * Of the masters that these sections hold or ought to hold; nothing is kept.
   *
   * @param whole whether it is the calendar of the whole term that is entered
   */
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  public List<Load> of(
      UUID term, boolean whole, CalendarEntry e, Collection<UUID> sections, SignedIn who) {
    Calendars.Kept entered = new Calendars.Kept(term, term, e.name(), whole, e.fit(), e.calendar());
    Calendars.Kept of = whole ? entered : calendars.of(term).get(0);
    Ribbon.Term t = ribbon.term(term, who);
    List<Load> all = new ArrayList<>();
    for (Ribbon.Draft d : t.drafts()) {
      Set<UUID> holding = t.masters().get(d.id());
      t.groups().entrySet().stream()
          .filter(
              g ->
                  g.getValue().stream()
                      .anyMatch(s -> sections.contains(s.id()) && holding.contains(s.id())))
          .findFirst()
          .ifPresent(g -> all.add(load(d, days(of, entered, g.getKey().goes().meetings()))));
    }
    return all;
  }

  private static TermDays days(Calendars.Kept whole, Calendars.Kept mine, Meetings meetings) {
    try {
      return Calendars.goes(whole, mine, meetings).days();
    } catch (CalendarException e) {
      throw CalendarEntry.refused(e);
    }
  }

  private static Load load(Ribbon.Draft d, TermDays days) {
    Map<ItemKey, Dated> dates = days.dates(d.items(), d.off());
    List<String> together =
        d.tree().nodes().stream()
            .filter(
                n ->
                    dates.get(n.key()).remarks().stream()
                        .anyMatch(r -> r.kind() == Remark.Kind.TWO_ON_ONE_DAY))
            .map(Node::title)
            .toList();
    return new Load(d.id(), WeekLoad.of(days.days(), dates.values()), together);
  }
}
