package org.zephyrmist.server.calendar;

import static org.zephyrmist.server.db.Tables.SECTION;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.server.content.Previews;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Dates that chosen sections have, whatever the pattern of their master says. */
@Component
class SectionDates {
  private final DSLContext db;
  private final Reach reach;
  private final Events events;
  private final Clock clock;

  SectionDates(DSLContext db, Reach reach, Events events, Clock clock) {
    this.db = db;
    this.reach = reach;
    this.events = events;
    this.clock = clock;
  }

  private static void check(List<CalendarApi.SetDate> dates) {
    for (CalendarApi.SetDate d : dates) {
      Previews.key(d.item());
      if (d.at() != null) {
        CalendarEntry.inRange(d.at().toLocalDate());
      }
    }
    if (dates.stream().map(d -> d.item() + " " + d.point()).distinct().count() < dates.size()) {
      throw Refusal.bad("A date is set twice in one call.", "Name each item and point once.");
    }
  }

  /** Sets dates in sections, which have to be within reach; they come with the next delivery. */
  @Transactional
  public void set(
      MasterRecord master, List<UUID> sections, List<CalendarApi.SetDate> dates, SignedIn who) {
    check(dates);
    UUID[] ids = sections.stream().distinct().toArray(UUID[]::new);
    if (db.fetchCount(SECTION, SECTION.ID.eq(DSL.any(ids)).and(reach.sections(who))) < ids.length) {
      throw Refusal.notFound("section");
    }
    String[] items = dates.stream().map(CalendarApi.SetDate::item).toArray(String[]::new);
    String[] points = dates.stream().map(d -> d.point().name()).toArray(String[]::new);
    db.query(
            "delete from section_date where master_id = ? and section_id = any(?::uuid[]) and"
                + " (item_key, point) in (select * from unnest(?::text[], ?::text[]))",
            master.getId(),
            ids,
            items,
            points)
        .execute();
    List<CalendarApi.SetDate> own = dates.stream().filter(d -> !d.byPattern()).toList();
    db.query(
            "insert into section_date select s, ?::uuid, d.item, d.point, d.at::timestamp, ?::uuid,"
                + " ?::timestamptz from unnest(?::uuid[]) s, unnest(?::text[], ?::text[], ?::text[])"
                + " d(item, point, at)",
            master.getId(),
            who.id(),
            OffsetDateTime.now(clock),
            ids,
            own.stream().map(CalendarApi.SetDate::item).toArray(String[]::new),
            own.stream().map(d -> d.point().name()).toArray(String[]::new),
            own.stream().map(d -> d.at() == null ? null : d.at().toString()).toArray(String[]::new))
        .execute();
    events.add(
        who.id(),
        own.isEmpty() ? "gave back to the pattern dates of" : "set dates of sections for",
        master.getCode(),
        dates.size() + " dates in " + ids.length + " sections",
        "/calendar");
  }
}
