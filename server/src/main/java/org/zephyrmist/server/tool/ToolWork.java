package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TERM;

import java.time.Clock;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.tool.Connection;
import org.zephyrmist.core.tool.Connection.Entered;
import org.zephyrmist.core.tool.Courses;
import org.zephyrmist.core.tool.LinkState;
import org.zephyrmist.core.tool.Pairing;
import org.zephyrmist.core.tool.Stage;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.queue.Queue;
import org.zephyrmist.server.web.Refusal;

/** What is begun for many sections at once; platforms are asked and written to by jobs. */
@Component
class ToolWork {
  private final DSLContext db;
  private final ToolHosts hosts;
  private final ToolSections sections;
  private final Sightings sightings;
  private final Queue queue;
  private final Events events;
  private final Clock clock;

  ToolWork(
      DSLContext db,
      ToolHosts hosts,
      ToolSections sections,
      Sightings sightings,
      Queue queue,
      Events events,
      Clock clock) {
    this.db = db;
    this.hosts = hosts;
    this.sections = sections;
    this.sightings = sightings;
    this.queue = queue;
    this.events = events;
    this.clock = clock;
  }

  /** Days from today to the first day of a term. */
  int daysBefore(UUID term) {
    return db.select(TERM.FIRST_DAY)
        .from(TERM)
        .where(TERM.ID.eq(term))
        .fetchOptional(TERM.FIRST_DAY)
        .map(d -> (int) ChronoUnit.DAYS.between(LocalDate.now(clock), d))
        .orElse(0);
  }

  /** How many are still to be looked at. */
  @Transactional
  public int look(List<UUID> asked) {
    sightings.want(asked);
    queue.put(LookAtTools.NAME, platforms(asked));
    return sightings.wanted(asked);
  }

  private List<UUID> platforms(List<UUID> asked) {
    return db.selectDistinct(SECTION.PLATFORM_ID)
        .from(SECTION)
        .where(SECTION.ID.eq(DSL.any(asked.toArray(UUID[]::new))))
        .and(SECTION.PLATFORM_ID.isNotNull())
        .fetch(SECTION.PLATFORM_ID);
  }

  @Transactional
  public void done(List<UUID> asked, String host, Stage stage, SignedIn who) {
    if (stage == Stage.APPROVAL) {
      throw new Refusal(
          HttpStatus.FORBIDDEN,
          "An approval is an administrator's decision.",
          "Ask for it; it is decided in the list of requests.");
    }
    if (stage == Stage.CREDENTIALS) {
      entered(asked, host);
    }
    sightings.done(asked, host, stage.name(), stage == Stage.CREDENTIALS);
    events.add(who.id(), "said it is done", host + ", " + asked.size() + " sections", "" + stage);
  }

  /** Somebody entered the credentials of the connections that serve there. */
  private void entered(List<UUID> asked, String host) {
    List<UUID> at = new ArrayList<>();
    List<UUID> of = new ArrayList<>();
    List<Integer> states = new ArrayList<>();
    ToolHosts.Picture picture = hosts.of(sections.where(SECTION.ID.in(asked)));
    Map<String, Integer> generations = new HashMap<>();
    picture.connections().forEach(c -> generations.put(c.connection().id(), c.generation()));
    for (ToolHosts.Cell cell : picture.cells()) {
      Optional<Connection> serving = cell.state().connection();
      if (cell.host().equals(host) && serving.isPresent()) {
        at.add(cell.section().id());
        of.add(UUID.fromString(serving.get().id()));
        states.add(generations.get(serving.get().id()));
      }
    }
    sightings.written(at, at.stream().map(s -> host).toList(), of, states);
  }

  /**
   * What writing credentials would do, and did.
   *
   * @param sections whose shells they are written into
   * @param links that they serve there
   * @param byHand sections whose shells nobody can write to but by hand
   */
  record Applied(int sections, int links, List<UUID> byHand) {}

  /**
   * Has a connection's credentials written into the shells of sections that it serves.
   *
   * @param really whether it is done, or only said what would be
   */
  @Transactional
  public Applied apply(KnownConnection c, List<UUID> asked, boolean really, SignedIn who) {
    if (c.connection().credentials() != Entered.FOR_SHELLS) {
      throw Refusal.bad(
          c.connection().name() + " has no key and secret to write.",
          "Have an administrator enter them first.");
    }
    List<UUID> to = new ArrayList<>();
    List<String> at = new ArrayList<>();
    List<String> courses = new ArrayList<>();
    List<UUID> byHand = new ArrayList<>();
    int links = 0;
    for (ToolHosts.Cell cell : hosts.of(sections.where(SECTION.ID.in(asked))).cells()) {
      boolean its = cell.state().connection().filter(c.connection()::equals).isPresent();
      Optional<String> shell = cell.section().shell();
      if (!its || shell.isEmpty() || cell.state().reason() == LinkState.Reason.NO_HOST) {
        continue;
      }
      if (cell.section().byHand()) {
        byHand.add(cell.section().id());
      } else {
        to.add(cell.section().id());
        at.add(cell.host());
        courses.add(course(c, cell.section()));
        links += cell.links();
      }
    }
    int n = (int) to.stream().distinct().count();
    if (really && n > 0) {
      write(UUID.fromString(c.connection().id()), to, at, courses, who);
      events.add(
          who.id(), "has credentials written of", c.connection().name(), n + " sections", "/tools");
    }
    return new Applied(n, links, byHand.stream().distinct().toList());
  }

  /** That launches name; null if they name none, or a value of it is not known. */
  private static String course(KnownConnection c, ToolSections.ToolSection s) {
    return c.connection().pairing() == Pairing.BY_PARAMETER
        ? Courses.of(c.course(), s.place()).orElse(null)
        : null;
  }

  /**
   * Lists of the same length.
   *
   * @param courses that launches name from now on; null: as it is
   */
  void write(UUID connection, List<UUID> to, List<String> at, List<String> courses, SignedIn who) {
    db.query(
            "insert into tool_write as t (section_id, host, course, connection_id, person_id, asked_at)"
                + " select x.s, x.h, x.c, ?::uuid, ?::uuid, ?::timestamptz from unnest(?::uuid[], ?::text[], ?::text[]) x(s, h, c)"
                + " on conflict (section_id, host) do update set connection_id ="
                + " excluded.connection_id, person_id = excluded.person_id, asked_at ="
                + " excluded.asked_at, course = coalesce(excluded.course, t.course), tries = 0,"
                + " trouble = '', remedy = ''",
            connection,
            who.id(),
            OffsetDateTime.now(clock),
            to.toArray(UUID[]::new),
            at.toArray(String[]::new),
            courses.toArray(String[]::new))
        .execute();
    queue.put(WriteTools.NAME, platforms(to));
  }

  /** Sections that a connection serves and whose shells have its credentials from before. */
  List<UUID> older(UUID connection, int generation) {
    return db.fetch(
            "select section_id from section_tool where connection_id = ? and generation < ?",
            connection,
            generation)
        .map(r -> r.get(0, UUID.class));
  }
}
