package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_TOOL;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.tool.Connection;
import org.zephyrmist.core.tool.LinkState;
import org.zephyrmist.core.tool.Resolution;
import org.zephyrmist.core.tool.Scored;
import org.zephyrmist.core.tool.SectionPlace;
import org.zephyrmist.core.tool.Seen;
import org.zephyrmist.core.tool.Sighting;
import org.zephyrmist.core.tool.Stage;
import org.zephyrmist.core.tool.Ties;
import org.zephyrmist.core.tool.Written;
import org.zephyrmist.server.db.tables.records.SectionToolRecord;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.tool.ToolSections.ToolSection;

/** Every host in every section of a term: how many links lead to it, and what state they are in. */
@Component
class ToolHosts {
  /** Where no platform has told anything, nothing speaks against its tool support. */
  private static final Sighting UNSEEN =
      new Sighting(
          true,
          Seen.Data.NONE,
          Optional.empty(),
          Optional.empty(),
          Set.of(),
          false,
          Seen.Tested.NOTHING_WRONG);

  private final DSLContext db;
  private final Reach reach;
  private final ToolSections sections;
  private final ToolConnections connections;
  private final LinksOfSections linked;
  private final Clock clock;

  ToolHosts(
      DSLContext db,
      Reach reach,
      ToolSections sections,
      ToolConnections connections,
      LinksOfSections linked,
      Clock clock) {
    this.linked = linked;
    this.db = db;
    this.reach = reach;
    this.sections = sections;
    this.connections = connections;
    this.clock = clock;
  }

  /**
   * A host in a section.
   *
   * @param links that lead to it there
   * @param course on the tool's side; empty if none is known
   * @param said what the tool last said there
   * @param secret which one its shell has
   * @param until when the tool's own wait ends, if one has begun
   * @param scored the last score that came back
   */
  record Cell(
      ToolSection section,
      String host,
      int links,
      LinkState state,
      String course,
      String said,
      Secret secret,
      Optional<Instant> until,
      Optional<Scored> scored) {}

  /** Which secret of its connection a shell has. */
  enum Secret {
    NOW,
    /** The one before the last change, which its tool takes too. */
    BEFORE,
    /** That one, which is not kept here: what a launch would meet cannot be told. */
    NOT_KEPT
  }

  /**
   * All of one moment.
   *
   * @param looked how many of the sections' platforms have told what is there
   */
  record Picture(
      List<ToolSection> sections, List<KnownConnection> connections, List<Cell> cells, int looked) {
    /** What a host's tool is called: as its connection is, or as the host if there is none. */
    String name(String host) {
      return of(host).findFirst().map(Connection::name).orElse(host);
    }

    /** Where sections can be with a host: all that any of its connections has. */
    Set<LinkState.Standing> standings(String host) {
      if (of(host).findAny().isEmpty()) {
        return EnumSet.allOf(LinkState.Standing.class); // nobody knows yet
      }
      Set<LinkState.Standing> all = EnumSet.noneOf(LinkState.Standing.class);
      of(host).forEach(c -> all.addAll(c.standings()));
      cells.stream().filter(c -> c.host().equals(host)).forEach(c -> all.add(c.state().standing()));
      return all;
    }

    private Stream<Connection> of(String host) {
      return connections.stream()
          .map(KnownConnection::connection)
          .filter(c -> c.hosts().contains(host))
          .sorted(Comparator.comparing(c -> c.scope().level()));
    }
  }

  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  public Picture of(UUID term, SignedIn who) {
    List<ToolSection> all = sections.where(SECTION.TERM_ID.eq(term).and(reach.sections(who)));
    return of(all);
  }

  /** The same for some sections, which have to be within reach. */
  Picture of(List<ToolSection> all) {
    List<KnownConnection> known = connections.all();
    UUID[] ids = ids(all);
    Map<UUID, SectionPlace> places = new HashMap<>();
    all.forEach(x -> places.put(x.id(), x.place()));
    Map<UUID, Map<String, SectionToolRecord>> seen = seen(ids);
    Set<UUID> looked = linked.looked(ids);
    return picture(all, known, seen, linked.of(ids, places, known, seen, looked), looked.size());
  }

  /**
   * The same as if these links were there and no others.
   *
   * @param links how many, by section and host
   */
  Picture of(List<ToolSection> all, Map<UUID, Map<String, Integer>> links) {
    return picture(all, connections.all(), seen(ids(all)), links, all.size());
  }

  private static UUID[] ids(List<ToolSection> all) {
    return all.stream().map(ToolSection::id).toArray(UUID[]::new);
  }

  private Picture picture(
      List<ToolSection> all,
      List<KnownConnection> known,
      Map<UUID, Map<String, SectionToolRecord>> seen,
      Map<UUID, Map<String, Integer>> links,
      int looked) {
    Map<String, Ties> ties = ties(known);
    Resolution rules =
        new Resolution(known.stream().map(KnownConnection::connection).toList(), clock.instant());
    Map<String, KnownConnection> byId = new HashMap<>();
    known.forEach(c -> byId.put(c.connection().id(), c));
    List<Cell> cells = new ArrayList<>();
    for (ToolSection s : all) {
      Map<String, SectionToolRecord> here = seen.getOrDefault(s.id(), Map.of());
      links
          .getOrDefault(s.id(), Map.of())
          .forEach(
              (host, n) ->
                  cells.add(cell(s, host, n, here.get(host), rules, byId, ties.get(host))));
    }
    return new Picture(all, known, cells, looked);
  }

  private Cell cell(
      ToolSection s,
      String host,
      int links,
      SectionToolRecord r,
      Resolution rules,
      Map<String, KnownConnection> known,
      Ties ties) {
    // which connection it is does not depend on what was seen; what was seen counts for it
    Optional<Connection> serving = rules.of(host, s.place(), Seen.NOTHING).connection();
    Sighting sighting = r == null ? UNSEEN : sighting(r, serving.map(c -> known.get(c.id())));
    Seen seen =
        serving
            .map(c -> known.get(c.id()))
            .map(c -> seen(s, sighting, r == null ? "" : r.getCourse(), c, ties))
            .orElseGet(
                () ->
                    new Seen(
                        Set.of(),
                        sighting.data(),
                        Seen.Tie.NONE,
                        Optional.empty(),
                        Seen.Tested.NOTHING_WRONG));
    return new Cell(
        s,
        host,
        links,
        rules.of(host, s.place(), seen),
        r == null ? "" : r.getCourse(),
        r == null ? "" : r.getRefused().isEmpty() ? r.getSaid() : r.getRefused(),
        serving.map(c -> secret(r, known.get(c.id()))).orElse(Secret.NOW),
        seen.until(),
        Optional.ofNullable(r).flatMap(ToolHosts::scored));
  }

  private static Optional<Scored> scored(SectionToolRecord r) {
    return Optional.ofNullable(r.getScoredAt())
        .map(at -> new Scored(at.toInstant(), r.getOutOf(), Optional.ofNullable(r.getPoints())));
  }

  private static Seen seen(
      ToolSection s, Sighting sighting, String course, KnownConnection c, Ties ties) {
    Seen.Tie tie =
        ties == null
            ? Seen.Tie.NONE
            : ties.of(new Ties.Tied(s.id().toString(), s.place().term(), course));
    return sighting.seen(c.connection(), tie, c.takes());
  }

  /** What stands there, to the connection that serves. */
  private Sighting sighting(SectionToolRecord r, Optional<KnownConnection> serving) {
    Sighting all = sighting(r);
    boolean known = r.getGeneration() > 0 && all.data() == Seen.Data.THERE;
    boolean others =
        serving
            .filter(c -> c.connection().credentials() == Connection.Entered.FOR_SHELLS)
            .filter(c -> known && !written(r).isOf(c.connection(), c.generation(), both(c)))
            .isPresent();
    return others ? all.with(Seen.Data.OTHERS) : all;
  }

  private Secret secret(SectionToolRecord r, KnownConnection c) {
    boolean older =
        r != null
            && r.getGeneration() > 0
            && r.getGeneration() < c.generation()
            && both(c)
            && written(r).isOf(c.connection(), c.generation(), true);
    return !older ? Secret.NOW : c.before() ? Secret.BEFORE : Secret.NOT_KEPT;
  }

  private boolean both(KnownConnection c) {
    return c.bothUntil().filter(d -> !LocalDate.now(clock).isAfter(d)).isPresent();
  }

  private static Written written(SectionToolRecord r) {
    return new Written(
        Optional.ofNullable(r.getConnectionId()).map(UUID::toString), r.getGeneration());
  }

  /** An opening counts from when the credentials stood there. */
  private static Sighting sighting(SectionToolRecord r) {
    Set<Stage> done = EnumSet.noneOf(Stage.class);
    Arrays.stream(r.getDone()).map(Stage::valueOf).forEach(done::add);
    return new Sighting(
        r.getSupport(),
        r.getData(),
        Optional.ofNullable(r.getOpenedAt())
            .filter(o -> r.getWrittenAt() == null || !o.isBefore(r.getWrittenAt()))
            .filter(o -> r.getUntiedAt() == null || o.isAfter(r.getUntiedAt()))
            .map(OffsetDateTime::toInstant),
        Optional.ofNullable(r.getAgreedAt()).map(OffsetDateTime::toInstant),
        done,
        !r.getRefused().isEmpty(),
        r.getTested());
  }

  private Map<UUID, Map<String, SectionToolRecord>> seen(UUID[] ids) {
    Map<UUID, Map<String, SectionToolRecord>> all = new HashMap<>();
    db.selectFrom(SECTION_TOOL)
        .where(SECTION_TOOL.SECTION_ID.eq(DSL.any(ids)))
        .forEach(
            r -> all.computeIfAbsent(r.getSectionId(), s -> new HashMap<>()).put(r.getHost(), r));
    return all;
  }

  /** Ties of all terms, by host. */
  private Map<String, Ties> ties(List<KnownConnection> known) {
    Map<String, Set<String>> masters = new HashMap<>();
    known.forEach(
        c ->
            c.connection()
                .hosts()
                .forEach(
                    h -> masters.computeIfAbsent(h, x -> new HashSet<>()).addAll(c.masters())));
    Map<String, List<Ties.Tied>> byHost = new HashMap<>();
    db.select(SECTION_TOOL.HOST, SECTION_TOOL.SECTION_ID, SECTION.TERM_ID, SECTION_TOOL.COURSE)
        .from(SECTION_TOOL)
        .join(SECTION)
        .on(SECTION.ID.eq(SECTION_TOOL.SECTION_ID))
        .where(SECTION_TOOL.COURSE.ne(""))
        .forEach(
            r ->
                byHost
                    .computeIfAbsent(r.value1(), h -> new ArrayList<>())
                    .add(new Ties.Tied(r.value2().toString(), "" + r.value3(), r.value4())));
    Map<String, Ties> all = new HashMap<>();
    byHost.forEach((h, tied) -> all.put(h, new Ties(tied, masters.getOrDefault(h, Set.of()))));
    return all;
  }
}
