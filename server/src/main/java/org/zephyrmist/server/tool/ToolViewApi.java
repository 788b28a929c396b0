package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.LAUNCH_TEST;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TOOL_LOOK;

import jakarta.validation.constraints.NotNull;
import java.math.BigDecimal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.tool.BasicLaunch;
import org.zephyrmist.core.tool.LaunchAnswer;
import org.zephyrmist.core.tool.LinkState;
import org.zephyrmist.core.tool.Scored;
import org.zephyrmist.core.tool.Stage;
import org.zephyrmist.server.people.SignedIn;

/** Tools as the pages of a section and of a plan show them. */
@RestController
@RequestMapping(path = "/api/tools", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("isAuthenticated()")
class ToolViewApi {
  private final DSLContext db;
  private final ToolsOnArrival arrival;
  private final ToolHosts hosts;
  private final ToolSections sections;
  private final ToolReach reach;

  ToolViewApi(
      DSLContext db,
      ToolsOnArrival arrival,
      ToolHosts hosts,
      ToolSections sections,
      ToolReach reach) {
    this.db = db;
    this.arrival = arrival;
    this.hosts = hosts;
    this.sections = sections;
    this.reach = reach;
  }

  /**
   * A host in a section.
   *
   * @param name what its tool is called
   * @param links that lead to it
   * @param course on the tool's side; empty if none is known
   * @param until when the tool's own wait ends; absent if none has begun
   * @param scored when a score last came back; absent if none did
   * @param outOf points that the tool gave it out of
   * @param points of its task in the shell; absent if it has none
   * @param scaled whether the two differ, so that scores are scaled
   * @param tests the last launches that were tested, the newest first
   */
  record SectionToolView(
      @NotNull String host,
      @NotNull String name,
      int links,
      @NotNull LinkState.Standing standing,
      @NotNull LinkState.Reason reason,
      @NotNull Stage.Whose whose,
      @NotNull String course,
      Instant until,
      Instant scored,
      BigDecimal outOf,
      BigDecimal points,
      boolean scaled,
      @NotNull List<ToolTest> tests) {}

  /**
   * @param said the tool's own words, if it did not let anybody in
   */
  record ToolTest(
      @NotNull Instant at,
      @NotNull BasicLaunch.Role role,
      @NotNull LaunchAnswer.Outcome outcome,
      @NotNull String said,
      int millis) {}

  /**
   * Tools of a section.
   *
   * @param trouble why its platform could not be asked when it last was; empty if it could
   */
  record SectionToolsView(@NotNull List<SectionToolView> tools, @NotNull String trouble) {}

  /** The hosts of a section's tool links, and how far they are. */
  @GetMapping("/sections/{section}")
  SectionToolsView section(@PathVariable UUID section, @AuthenticationPrincipal SignedIn who) {
    ToolHosts.Picture p = hosts.of(sections.where(SECTION.ID.in(reach.all(List.of(section), who))));
    Map<String, List<ToolTest>> tests = tests(section);
    String trouble =
        db.select(TOOL_LOOK.TROUBLE)
            .from(TOOL_LOOK)
            .where(TOOL_LOOK.SECTION_ID.eq(section))
            .fetchOptional(TOOL_LOOK.TROUBLE)
            .orElse("");
    return new SectionToolsView(p.cells().stream().map(c -> view(c, p, tests)).toList(), trouble);
  }

  /** By host, some of each. */
  private Map<String, List<ToolTest>> tests(UUID section) {
    Map<String, List<ToolTest>> all = new HashMap<>();
    db.selectFrom(LAUNCH_TEST)
        .where(LAUNCH_TEST.SECTION_ID.eq(section))
        .orderBy(LAUNCH_TEST.ID.desc())
        .limit(60)
        .forEach(
            r -> {
              List<ToolTest> mine = all.computeIfAbsent(r.getHost(), h -> new ArrayList<>());
              if (mine.size() < 6) {
                mine.add(
                    new ToolTest(
                        r.getAt().toInstant(),
                        r.getRole(),
                        r.getOutcome(),
                        r.getSaid(),
                        r.getMillis()));
              }
            });
    return all;
  }

  private static SectionToolView view(
      ToolHosts.Cell c, ToolHosts.Picture p, Map<String, List<ToolTest>> tests) {
    return new SectionToolView(
        c.host(),
        p.name(c.host()),
        c.links(),
        c.state().standing(),
        c.state().reason(),
        c.state().whose(),
        c.course(),
        c.until().orElse(null),
        c.scored().map(Scored::at).orElse(null),
        c.scored().map(Scored::outOf).orElse(null),
        c.scored().flatMap(Scored::points).orElse(null),
        c.scored().filter(Scored::differs).isPresent(),
        tests.getOrDefault(c.host(), List.of()));
  }

  /**
   * How far some sections are.
   *
   * @param sections how many
   */
  record ArrivingState(
      @NotNull LinkState.Standing standing,
      @NotNull LinkState.Reason reason,
      @NotNull Stage.Whose whose,
      int sections) {}

  record ArrivingTool(
      @NotNull String host, @NotNull String name, @NotNull List<ArrivingState> states) {}

  /**
   * What of a delivery's tool links will work.
   *
   * @param looked whether its version was looked through for links yet
   */
  record ArrivingTools(boolean looked, @NotNull List<ArrivingTool> tools) {}

  /** What will work when a delivery arrives, and what waits for whom. */
  @GetMapping("/arrival/{delivery}")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
  ArrivingTools arrival(@PathVariable UUID delivery, @AuthenticationPrincipal SignedIn who) {
    ToolsOnArrival.Arriving a = arrival.of(delivery, who);
    Map<String, Map<ArrivingState, Integer>> byHost = new LinkedHashMap<>();
    for (ToolHosts.Cell c : a.picture().cells()) {
      LinkState s = c.state();
      byHost
          .computeIfAbsent(c.host(), h -> new LinkedHashMap<>())
          .merge(new ArrivingState(s.standing(), s.reason(), s.whose(), 0), 1, Integer::sum);
    }
    List<ArrivingTool> tools = new ArrayList<>();
    byHost.forEach(
        (host, states) -> {
          List<ArrivingState> counted = new ArrayList<>();
          states.forEach(
              (s, n) -> counted.add(new ArrivingState(s.standing(), s.reason(), s.whose(), n)));
          counted.sort(Comparator.comparing(ArrivingState::standing));
          tools.add(new ArrivingTool(host, a.picture().name(host), counted));
        });
    return new ArrivingTools(a.looked(), tools);
  }
}
