package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_TOOL;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.tool.Connection;
import org.zephyrmist.core.tool.Courses;
import org.zephyrmist.core.tool.SectionPlace;
import org.zephyrmist.core.tool.Template;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.tool.ToolSections.ToolSection;
import org.zephyrmist.server.web.Refusal;

/** Mends ties of sections to courses on a tool's side. */
@Component
class TieEdits {
  private final DSLContext db;
  private final ToolHosts hosts;
  private final ToolSections sections;
  private final Sightings sightings;
  private final ToolWork work;
  private final Events events;

  TieEdits(
      DSLContext db,
      ToolHosts hosts,
      ToolSections sections,
      Sightings sightings,
      ToolWork work,
      Events events) {
    this.db = db;
    this.hosts = hosts;
    this.sections = sections;
    this.sightings = sightings;
    this.work = work;
    this.events = events;
  }

  /**
   * What was mended.
   *
   * @param byHand sections whose shells nobody can write to but by hand
   */
  record Mended(int sections, List<UUID> byHand) {}

  /** Instructors answer anew; their next opening counts. */
  @Transactional
  public Mended anew(List<UUID> asked, String host, SignedIn who) {
    List<ToolHosts.Cell> cells = cells(asked, host);
    List<UUID> all = cells.stream().map(c -> c.section().id()).toList();
    sightings.untied(all, host);
    events.add(who.id(), "has courses answered anew", host, all.size() + " sections", "/tools");
    return new Mended(all.size(), List.of());
  }

  /** Launches name a course for each section from now on, which each instructor opens once. */
  @Transactional
  public Mended named(List<UUID> asked, String host, String pattern, SignedIn who) {
    Template t = new Template(pattern.strip());
    ConnectionChecks.values(t.names());
    List<ToolHosts.Cell> cells = new ArrayList<>();
    List<UUID> byHand = new ArrayList<>();
    for (ToolHosts.Cell c : cells(asked, host)) {
      if (c.section().byHand() || c.section().shell().isEmpty()) {
        byHand.add(c.section().id());
      } else {
        cells.add(c);
      }
    }
    List<String> courses = courses(t, cells, host);
    Map<String, List<Integer>> byConnection = new HashMap<>();
    for (int i = 0; i < cells.size(); i++) {
      Connection c = cells.get(i).state().connection().orElseThrow(() -> notEntered(host));
      if (c.credentials() != Connection.Entered.FOR_SHELLS) {
        throw notEntered(host);
      }
      byConnection.computeIfAbsent(c.id(), x -> new ArrayList<>()).add(i);
    }
    sightings.untied(cells.stream().map(c -> c.section().id()).toList(), host);
    byConnection.forEach(
        (id, at) ->
            work.write(
                UUID.fromString(id),
                at.stream().map(i -> cells.get(i).section().id()).toList(),
                at.stream().map(i -> host).toList(),
                at.stream().map(courses::get).toList(),
                who));
    events.add(who.id(), "names courses", host, cells.size() + " sections: " + t.text(), "/tools");
    return new Mended(cells.size(), byHand);
  }

  private static Refusal notEntered(String host) {
    return Refusal.bad(
        "No connection of " + host + " has credentials to write with the course.",
        "Have the instructors answer in the tool, or have the connection entered.");
  }

  private List<ToolHosts.Cell> cells(List<UUID> asked, String host) {
    return hosts.of(sections.where(SECTION.ID.in(asked))).cells().stream()
        .filter(c -> c.host().equals(host))
        .toList();
  }

  private List<String> courses(Template t, List<ToolHosts.Cell> cells, String host) {
    List<SectionPlace> places = new ArrayList<>();
    for (ToolHosts.Cell c : cells) {
      places.add(c.section().place());
    }
    try {
      return Courses.named(t, places, tied(host));
    } catch (Courses.NotNamed e) {
      throw Refusal.bad(
          e.getMessage(), "Write a pattern that differs for each, such as {section}-{term}.");
    }
  }

  /** Courses of a host, with the sections that come to each. */
  private Map<String, Set<String>> tied(String host) {
    Map<UUID, String> courses =
        db.select(SECTION_TOOL.SECTION_ID, SECTION_TOOL.COURSE)
            .from(SECTION_TOOL)
            .where(SECTION_TOOL.HOST.eq(host))
            .and(SECTION_TOOL.COURSE.ne(""))
            .fetchMap(SECTION_TOOL.SECTION_ID, SECTION_TOOL.COURSE);
    Map<String, Set<String>> all = new HashMap<>();
    for (ToolSection s : sections.where(SECTION.ID.in(courses.keySet()))) {
      all.computeIfAbsent(courses.get(s.id()), c -> new HashSet<>()).add(s.place().section());
    }
    return all;
  }
}
