package org.zephyrmist.server.calendar;

import static org.zephyrmist.server.db.Tables.MASTER_OFF;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.calendar.CountedDays;
import org.zephyrmist.core.calendar.DatedTree;
import org.zephyrmist.core.calendar.OldDates;
import org.zephyrmist.core.calendar.Shifted;
import org.zephyrmist.core.calendar.Undated;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.OffRule;
import org.zephyrmist.core.content.Point;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.When;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.master.Drafts;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;
import tools.jackson.databind.json.JsonMapper;

/** Dates of drafts, many at once; each change is one step of the draft that can be undone. */
@Component
class MasterDates {
  private final DSLContext db;
  private final CalendarEdits calendars;
  private final Trees trees;
  private final Bodies bodies;
  private final Drafts drafts;
  private final Events events;
  private final JsonMapper json;

  MasterDates(
      DSLContext db,
      CalendarEdits calendars,
      Trees trees,
      Bodies bodies,
      Drafts drafts,
      Events events,
      JsonMapper json) {
    this.db = db;
    this.calendars = calendars;
    this.trees = trees;
    this.bodies = bodies;
    this.drafts = drafts;
    this.events = events;
    this.json = json;
  }

  @Transactional
  public void off(MasterRecord master, OffRule rule, Map<Kind, OffRule> byKind, SignedIn who) {
    db.insertInto(MASTER_OFF)
        .values(master.getId(), rule, JSONB.valueOf(json.writeValueAsString(byKind)))
        .onConflict(MASTER_OFF.MASTER_ID)
        .doUpdate()
        .setAllToExcluded()
        .execute();
    events.add(
        who.id(),
        "changed what days off do to dates of",
        master.getCode(),
        rule.name(),
        "/sources/masters/" + master.getId());
  }

  /** Makes patterns of the real dates of a draft, by the calendar in which they are real. */
  @Transactional
  public List<MasterDatesApi.PatternMade> patterns(
      MasterRecord master, UUID calendar, OldDates.By by, boolean really, SignedIn who) {
    OldDates old = new OldDates(new CountedDays(calendars.kept(calendar).calendar()), by);
    Tree tree = trees.tree(master.getDraftTreeId());
    List<MasterDatesApi.PatternMade> all = new ArrayList<>();
    for (Undated u : DatedTree.undated(tree, bodies.get(DatedTree.timings(tree)))) {
      Timing to = old.patterns(u.timing());
      for (Point p : Point.values()) {
        u.timing()
            .at(p)
            .ifPresent(
                real ->
                    all.add(
                        new MasterDatesApi.PatternMade(
                            u.key().value(),
                            tree.get(u.key()).orElseThrow().title(),
                            p,
                            real,
                            to.patterns().at(p).map(When::text).orElse(null))));
      }
    }
    if (really) {
      drafts.rewrite(master, "made patterns of dates", a -> a.with(old.patterns(a.timing())), who);
    }
    return all;
  }

  /** Moves all dates of items by days. */
  @Transactional
  public int move(MasterRecord master, List<String> items, int days, SignedIn who) {
    Set<ItemKey> keys = new HashSet<>();
    items.forEach(i -> ItemKey.of(i).ifPresent(keys::add));
    try {
      return drafts.rewrite(
          master,
          "moved dates by " + days + (Math.abs(days) == 1 ? " day" : " days"),
          (key, a) -> keys.contains(key) ? a.with(Shifted.all(a.timing(), days, keys)) : a,
          who);
    } catch (Shifted.NotPossible e) {
      throw Refusal.bad(e.getMessage(), "Move it less far, or write its day anew.");
    }
  }
}
