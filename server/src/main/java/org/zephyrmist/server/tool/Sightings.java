package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.TOOL_LOOK;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.tool.Scored;
import org.zephyrmist.core.tool.Seen;
import org.zephyrmist.core.tool.Stage;
import org.zephyrmist.core.tool.ToolWords;
import org.zephyrmist.server.platform.PlatformGateway.ToolHost;

/** What is known of hosts in sections. */
@Component
class Sightings {
  private final DSLContext db;
  private final ToolTasks tasks;
  private final Clock clock;

  Sightings(DSLContext db, ToolTasks tasks, Clock clock) {
    this.tasks = tasks;
    this.db = db;
    this.clock = clock;
  }

  /** A shell that is to be looked at. */
  record Due(UUID section, String shell) {}

  /** Shells that are wanted, never looked at, or delivered to since, of a platform. */
  List<Due> due(UUID platform, Duration every, int most) {
    return db.fetch(
            "select s.id, s.shell from section s left join tool_look l on l.section_id = s.id where"
                + " s.platform_id = ? and ("
                + DUE
                + ") order by l.wanted desc nulls last, l.looked_at nulls first, s.id limit ?",
            platform,
            before(every),
            most)
        .map(r -> new Due(r.get(0, UUID.class), r.get(1, String.class)));
  }

  /** Platforms with an interface that have such shells. */
  Collection<UUID> platforms(Duration every) {
    return db.fetch(
            "select distinct s.platform_id from section s join platform p on p.id = s.platform_id"
                + " left join tool_look l on l.section_id = s.id where p.address is not null and ("
                + DUE
                + ")",
            before(every))
        .map(r -> r.get(0, UUID.class));
  }

  private static final String DUE =
      "l.section_id is null or l.wanted or l.looked_at < ?::timestamptz or exists (select 1 from"
          + " section_learnt t where t.section_id = s.id and t.at > l.looked_at)";

  private OffsetDateTime before(Duration every) {
    return every.isZero() ? at(Instant.EPOCH) : at(clock.instant().minus(every));
  }

  private static OffsetDateTime at(Instant i) {
    return OffsetDateTime.ofInstant(i, ZoneOffset.UTC);
  }

  void want(Collection<UUID> sections) {
    db.query(
            "insert into tool_look (section_id, wanted, wanted_at) select unnest(?::uuid[]), true,"
                + " ?::timestamptz on conflict (section_id) do update set wanted = true,"
                + " wanted_at = excluded.wanted_at",
            sections.toArray(UUID[]::new),
            OffsetDateTime.now(clock))
        .execute();
  }

  /** Of these, how many are still to be looked at. */
  int wanted(Collection<UUID> sections) {
    return db.fetchCount(
        TOOL_LOOK,
        TOOL_LOOK
            .WANTED
            .isTrue()
            .and(TOOL_LOOK.SECTION_ID.eq(org.jooq.impl.DSL.any(ids(sections)))));
  }

  private static UUID[] ids(Collection<UUID> sections) {
    return sections.toArray(UUID[]::new);
  }

  /** That looking at these failed; they are looked at again when all others were. */
  void failed(List<Due> all, OffsetDateTime asked, String trouble) {
    looked(all, asked, trouble);
  }

  /** What was wanted after the platform was asked is still to be looked at. */
  private void looked(List<Due> all, OffsetDateTime asked, String trouble) {
    db.query(
            "insert into tool_look as l (section_id, wanted, looked_at, trouble)"
                + " select unnest(?::uuid[]), false, ?::timestamptz, ? on conflict (section_id) do update set"
                + " wanted = l.wanted and l.wanted_at > excluded.looked_at,"
                + " looked_at = excluded.looked_at, trouble = excluded.trouble",
            all.stream().map(Due::section).toArray(UUID[]::new),
            asked,
            trouble)
        .execute();
  }

  /**
   * Keeps what a platform told of these shells. What was once known of an agreement or a course
   * stays until the platform tells of another.
   *
   * @param asked when the platform was asked: what was learnt since then may not be in its answer
   * @param words by host, that tools say when they are tied
   */
  @Transactional
  void keep(
      List<Due> shells, OffsetDateTime asked, List<ToolHost> told, Map<String, ToolWords> words) {
    Map<String, UUID> sections = new HashMap<>();
    shells.forEach(d -> sections.put(d.shell(), d.section()));
    OffsetDateTime now = OffsetDateTime.now(clock);
    // of what the platform tells nothing any more, nothing is known
    db.query(
            "delete from section_tool t where t.section_id = any(?) and not exists (select 1 from"
                + " unnest(?::uuid[], ?::text[]) x(s, h) where x.s = t.section_id and x.h = t.host)"
                + " and (t.noted_at is null or t.noted_at <= ?::timestamptz)",
            shells.stream().map(Due::section).toArray(UUID[]::new),
            told.stream().map(h -> sections.get(h.shell())).toArray(UUID[]::new),
            told.stream().map(ToolHost::host).toArray(String[]::new),
            asked)
        .execute();
    db.batch(
            told.stream()
                .map(h -> upsert(sections.get(h.shell()), h, words.get(h.host()), asked, now))
                .toList())
        .execute();
    tasks.keep(sections, told);
    looked(shells, asked, "");
  }

  private org.jooq.Query upsert(
      UUID section, ToolHost h, ToolWords words, OffsetDateTime asked, OffsetDateTime now) {
    ToolWords w = words == null ? ToolWords.NONE : words;
    String named = h.course();
    String said = w.course(h.said()).orElse("");
    OffsetDateTime opened = h.opened().map(Sightings::at).orElse(null);
    OffsetDateTime agreed = w.in(h.said()) ? opened : null;
    return db.query(
        "insert into section_tool as t (section_id, host, support, links, data, opened_at,"
            + " agreed_at, course, said, looked_at, scored_at, out_of, points) values"
            + " (?, ?, ?, ?, ?, ?::timestamptz, ?::timestamptz, ?, ?, ?::timestamptz,"
            + " ?::timestamptz, ?::numeric, ?::numeric)"
            + " on conflict (section_id, host) do update set support = excluded.support,"
            + " links = excluded.links,"
            + " data = case when t.noted_at > ?::timestamptz then t.data else excluded.data end,"
            + " connection_id = case when excluded.data = 'THERE' or t.noted_at > ?::timestamptz"
            + " then t.connection_id end,"
            + " generation = case when excluded.data = 'THERE' or t.noted_at > ?::timestamptz"
            + " then t.generation else 0 end,"
            + " opened_at = excluded.opened_at,"
            + " agreed_at = coalesce(t.agreed_at, excluded.agreed_at),"
            + " course = case when ? <> '' then ? when excluded.course <> '' and (t.untied_at is null"
            + " or excluded.opened_at > t.untied_at) then excluded.course else t.course end,"
            + " said = excluded.said, looked_at = excluded.looked_at, scored_at = excluded.scored_at,"
            + " out_of = excluded.out_of, points = excluded.points",
        section,
        h.host(),
        h.support(),
        h.links(),
        h.data().name(),
        opened,
        agreed,
        named.isEmpty() ? said : named,
        h.said(),
        now,
        h.scored().map(x -> at(x.at())).orElse(null),
        h.scored().map(Scored::outOf).orElse(null),
        h.scored().flatMap(Scored::points).orElse(null),
        asked,
        asked,
        asked,
        named,
        named);
  }

  /**
   * Credentials of a connection stand in shells now, one for each place of the lists. Where some
   * stood already, what was opened since then stays opened.
   */
  void written(List<UUID> sections, List<String> hosts, List<UUID> of, List<Integer> generations) {
    db.query(
            "insert into section_tool as t (section_id, host, support, data, written_at, connection_id,"
                + " generation, looked_at, noted_at) select x.s, x.h, true, 'THERE', ?::timestamptz, x.c, x.g,"
                + " ?::timestamptz, ?::timestamptz"
                + " from unnest(?::uuid[], ?::text[], ?::uuid[], ?::int[]) x(s, h, c, g)"
                + " on conflict (section_id, host) do update set data = 'THERE', refused = '',"
                + " written_at = case when t.data = 'THERE' then t.written_at"
                + " else excluded.written_at end, connection_id = excluded.connection_id,"
                + " generation = excluded.generation, noted_at = excluded.noted_at",
            OffsetDateTime.now(clock),
            OffsetDateTime.now(clock),
            OffsetDateTime.now(clock),
            sections.toArray(UUID[]::new),
            hosts.toArray(String[]::new),
            of.toArray(UUID[]::new),
            generations.toArray(Integer[]::new))
        .execute();
  }

  /** Which course sections have is asked anew; what was opened before does not count. */
  void untied(List<UUID> sections, String host) {
    db.query(
            "update section_tool set course = '', said = '', untied_at = ?::timestamptz,"
                + " done = array_remove(array_remove(done, 'PAIRING'), 'FIRST_OPENING')"
                + " where section_id = any(?) and host = ?",
            OffsetDateTime.now(clock),
            ids(sections),
            host)
        .execute();
  }

  /**
   * That somebody said of a stage that it is done. An agreement is accepted when a link is opened,
   * and the tool's own wait begins then.
   */
  void done(Collection<UUID> sections, String host, String stage, boolean data) {
    OffsetDateTime now = OffsetDateTime.now(clock);
    boolean opened =
        stage.equals(Stage.AGREEMENT.name()) || stage.equals(Stage.FIRST_OPENING.name());
    db.query(
            "insert into section_tool as t (section_id, host, support, data, done, agreed_at, looked_at,"
                + " noted_at) select unnest(?::uuid[]), ?, true, ?, array[?], ?::timestamptz,"
                + " ?::timestamptz, ?::timestamptz on conflict (section_id, host) do update set"
                + " data = case when ? then 'THERE' else t.data end, noted_at = excluded.noted_at,"
                + " agreed_at = coalesce(t.agreed_at, excluded.agreed_at),"
                + " done = array(select distinct unnest(t.done || excluded.done))",
            ids(sections),
            host,
            data ? Seen.Data.THERE.name() : Seen.Data.NONE.name(),
            stage,
            opened ? now : null,
            now,
            now,
            data)
        .execute();
  }
}
