package org.zephyrmist.server.check;

import java.time.Clock;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.check.Check;
import org.zephyrmist.core.check.ShellFinding;

/** What was found, as it is kept: each with the time since when it stands. */
@Component
class Findings {
  private final DSLContext db;
  private final Clock clock;

  Findings(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /** What was found in some sections at one time. */
  static final class Look {
    private final List<UUID> sections;
    private final OffsetDateTime at;
    private final List<UUID> section = new ArrayList<>();
    private final List<ShellFinding> found = new ArrayList<>();

    Look(List<UUID> sections, OffsetDateTime at) {
      this.sections = sections;
      this.at = at;
    }

    void add(UUID of, List<ShellFinding> all) {
      all.forEach(
          f -> {
            section.add(of);
            found.add(f);
          });
    }
  }

  /** Puts what was found in the place of what was found before in the same sections. */
  @Transactional
  public void put(Look look, Map<Check, CheckChoices.Choice> choices) {
    UUID[] sections = look.sections.toArray(UUID[]::new);
    List<ShellFinding> f = look.found;
    Object[] columns = {
      look.section.toArray(UUID[]::new),
      f.stream().map(x -> x.check().name()).toArray(String[]::new),
      f.stream().map(x -> x.about().text()).toArray(String[]::new),
      f.stream().map(x -> x.item().orElse("")).toArray(String[]::new),
      f.stream().map(ShellFinding::title).toArray(String[]::new),
      f.stream().map(ShellFinding::evidence).toArray(String[]::new)
    };
    db.query(
            "delete from finding f where f.section_id = any(?::uuid[]) and not exists (select 1 from"
                + " unnest(?::uuid[], ?::text[], ?::text[], ?::text[]) x (section, c, s, i) where"
                + " x.section = f.section_id and x.c = f.check_name and x.s = f.subject"
                + " and x.i = f.item)",
            sections,
            columns[0],
            columns[1],
            columns[2],
            columns[3])
        .execute();
    db.query(
            "insert into finding (section_id, check_name, subject, item, title, evidence, since)"
                + " select x.*, ?::timestamptz from unnest(?::uuid[], ?::text[], ?::text[],"
                + " ?::text[], ?::text[], ?::text[]) x on conflict (section_id, check_name, subject,"
                + " item) do update set title = excluded.title, evidence = excluded.evidence",
            look.at,
            columns[0],
            columns[1],
            columns[2],
            columns[3],
            columns[4],
            columns[5])
        .execute();
    db.query(
            "insert into section_checked select unnest(?::uuid[]), ?::timestamptz on conflict"
                + " (section_id) do update set at = excluded.at",
            sections,
            look.at)
        .execute();
    count(sections, choices);
  }

  /** How many there are now, at the end of this day until it is counted again. */
  private void count(UUID[] sections, Map<Check, CheckChoices.Choice> choices) {
    List<Map.Entry<Check, CheckChoices.Choice>> all = List.copyOf(choices.entrySet());
    db.query(
            "insert into checked_day (section_id, day, harm, wrong, can_wait) select s.id, ?::date,"
                + " count(*) filter (where w.weight = 'HARM'),"
                + " count(*) filter (where w.weight = 'WRONG'),"
                + " count(*) filter (where w.weight = 'CAN_WAIT')"
                + " from unnest(?::uuid[]) s (id) left join (finding f join unnest(?::text[],"
                + " ?::text[]) w (c, weight) on w.c = f.check_name) on f.section_id = s.id"
                + " and not exists (select 1 from right_here r where r.section_id = f.section_id"
                + "   and r.check_name = f.check_name and r.subject = f.subject"
                + "   and r.evidence = f.evidence)"
                + " group by s.id on conflict (section_id, day) do update set"
                + " harm = excluded.harm, wrong = excluded.wrong, can_wait = excluded.can_wait",
            LocalDate.now(clock),
            sections,
            all.stream().map(e -> e.getKey().name()).toArray(String[]::new),
            all.stream().map(e -> e.getValue().weight().name()).toArray(String[]::new))
        .execute();
  }
}
