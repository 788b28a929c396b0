package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.TOOL_REQUEST;
import static org.zephyrmist.server.db.Tables.TOOL_WRITE;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.tool.LinkState;
import org.zephyrmist.core.tool.Stage;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.section.Instructors;
import org.zephyrmist.server.tool.ToolSections.ToolSection;

/** The tools of a term: every host, and how far its links are in each section. */
@RestController
@RequestMapping(path = "/api/tools", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class ToolApi {
  private final ToolHosts hosts;
  private final ToolAddresses addresses;
  private final TieEdits ties;
  private final ToolWork work;
  private final TestRounds rounds;
  private final Instructors instructors;
  private final ToolReach reach;
  private final DSLContext db;

  ToolApi(
      ToolHosts hosts,
      ToolAddresses addresses,
      TieEdits ties,
      ToolWork work,
      TestRounds rounds,
      Instructors instructors,
      ToolReach reach,
      DSLContext db) {
    this.hosts = hosts;
    this.addresses = addresses;
    this.ties = ties;
    this.work = work;
    this.rounds = rounds;
    this.instructors = instructors;
    this.reach = reach;
    this.db = db;
  }

  /**
   * @param byHand whether its platform has no interface to write by
   */
  record ToolSectionView(
      @NotNull UUID id,
      @NotNull String code,
      @NotNull String title,
      @NotNull String course,
      @NotNull String campus,
      @NotNull String instructors,
      boolean shell,
      boolean byHand) {}

  /**
   * State that several sections are in.
   *
   * @param stuck stage that is not reached; absent if it works, or no connection serves it
   * @param connection that serves it; absent if none does
   */
  record ToolState(
      @NotNull LinkState.Standing standing,
      @NotNull LinkState.Reason reason,
      Stage stuck,
      @NotNull Stage.Whose whose,
      UUID connection) {}

  /**
   * A host, and the sections with links to it as columns of equal length.
   *
   * @param standings where its sections can be at all
   * @param asked whether somebody asked for it to be approved and nobody has decided
   * @param section places in the list of sections, from 0
   * @param state places in the list of states
   * @param links of each section
   * @param course of each section on the tool's side; empty if none is known
   * @param said what the tool last said in each section
   * @param writing 1 where credentials are being written, 2 where that is in trouble, else 0
   */
  record ToolHostView(
      @NotNull String host,
      @NotNull String name,
      @NotNull Set<LinkState.Standing> standings,
      boolean asked,
      @NotNull int[] section,
      @NotNull int[] state,
      @NotNull int[] links,
      @NotNull String[] course,
      @NotNull String[] said,
      @NotNull int[] writing) {}

  /**
   * @param looked of how many sections the platform has told what is there
   * @param before how many days until the first day of the term; negative after it
   * @param issuer by which tools know this application (LTI 1.3 core, section 3.1.3)
   */
  record Tools(
      @NotNull List<ToolSectionView> sections,
      @NotNull List<ToolState> states,
      @NotNull List<ToolHostView> hosts,
      @NotNull List<ConnectionApi.ConnectionView> connections,
      int looked,
      int before,
      @NotNull String issuer) {}

  /**
   * Ties that are mended.
   *
   * @param course that launches name from now on, a pattern of the section's values; absent: the
   *     instructors answer anew in the tool
   */
  record TieMend(
      @NotEmpty @Size(max = 5000) List<@NotNull UUID> sections,
      @NotBlank @Size(max = 253) String host,
      @Size(max = 400) String course) {}

  /**
   * @param byHand sections whose shells nobody can write to but by hand
   */
  record MendedTies(int sections, @NotNull List<UUID> byHand) {}

  /** Gives sections a course of their own on the tool's side. */
  @PostMapping("/ties")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  MendedTies mend(@Valid @RequestBody TieMend m, @AuthenticationPrincipal SignedIn who) {
    List<UUID> all = reach.all(m.sections(), who);
    TieEdits.Mended done =
        m.course() == null
            ? ties.anew(all, m.host(), who)
            : ties.named(all, m.host(), m.course(), who);
    return new MendedTies(done.sections(), done.byHand());
  }

  @GetMapping
  Tools tools(@RequestParam UUID term, @AuthenticationPrincipal SignedIn who) {
    ToolHosts.Picture picture = hosts.of(term, who);
    Map<UUID, String> names = instructors.all();
    Map<UUID, Integer> place = new HashMap<>();
    List<ToolSectionView> sections = new ArrayList<>();
    for (ToolSection s : picture.sections()) {
      place.put(s.id(), sections.size());
      sections.add(
          new ToolSectionView(
              s.id(),
              s.code(),
              s.title(),
              s.place().course(),
              s.campus(),
              names.getOrDefault(s.id(), ""),
              s.shell().isPresent(),
              s.byHand()));
    }
    Map<ToolState, Integer> states = new LinkedHashMap<>();
    Map<String, List<ToolHosts.Cell>> byHost = new TreeMap<>();
    picture.cells().forEach(c -> byHost.computeIfAbsent(c.host(), h -> new ArrayList<>()).add(c));
    Map<String, Integer> writing = writing();
    Set<String> asked = asked();
    List<ToolHostView> views = new ArrayList<>();
    byHost.forEach(
        (host, cells) ->
            views.add(view(host, cells, picture, states, place, writing, asked.contains(host))));
    return new Tools(
        sections,
        List.copyOf(states.keySet()),
        views,
        picture.connections().stream().map(c -> ConnectionApi.view(c, who)).toList(),
        picture.looked(),
        work.daysBefore(term),
        addresses.issuer());
  }

  private static ToolHostView view(
      String host,
      List<ToolHosts.Cell> cells,
      ToolHosts.Picture picture,
      Map<ToolState, Integer> states,
      Map<UUID, Integer> place,
      Map<String, Integer> writing,
      boolean asked) {
    return new ToolHostView(
        host,
        picture.name(host),
        picture.standings(host),
        asked,
        cells.stream().mapToInt(c -> place.get(c.section().id())).toArray(),
        cells.stream()
            .mapToInt(c -> states.computeIfAbsent(state(c.state()), s -> states.size()))
            .toArray(),
        cells.stream().mapToInt(ToolHosts.Cell::links).toArray(),
        cells.stream().map(ToolHosts.Cell::course).toArray(String[]::new),
        cells.stream().map(ToolHosts.Cell::said).toArray(String[]::new),
        cells.stream().mapToInt(c -> writing.getOrDefault(c.section().id() + host, 0)).toArray());
  }

  private static ToolState state(LinkState s) {
    return new ToolState(
        s.standing(),
        s.reason(),
        s.stuck().orElse(null),
        s.whose(),
        s.connection().map(c -> UUID.fromString(c.id())).orElse(null));
  }

  private Map<String, Integer> writing() {
    Map<String, Integer> all = new HashMap<>();
    db.select(TOOL_WRITE.SECTION_ID, TOOL_WRITE.HOST, TOOL_WRITE.TROUBLE)
        .from(TOOL_WRITE)
        .forEach(r -> all.put(r.value1() + r.value2(), r.value3().isEmpty() ? 1 : 2));
    return all;
  }

  private Set<String> asked() {
    return db.select(TOOL_REQUEST.HOST)
        .from(TOOL_REQUEST)
        .where(TOOL_REQUEST.DECIDED.isNull())
        .fetchSet(TOOL_REQUEST.HOST);
  }

  /** Sections that something is to be done for. */
  record SomeSections(@NotEmpty @Size(max = 5000) List<@NotNull UUID> sections) {}

  /**
   * @param left sections that are still to be looked at
   */
  record Looking(int left) {}

  /** Has the platform asked again what these sections' shells have for tools. */
  @PostMapping("/look")
  Looking look(@Valid @RequestBody SomeSections s, @AuthenticationPrincipal SignedIn who) {
    return new Looking(work.look(reach.all(s.sections(), who)));
  }

  /**
   * Something that people have done outside.
   *
   * @param stage that is reached by it
   */
  record DoneByHand(
      @NotEmpty @Size(max = 5000) List<@NotNull UUID> sections,
      @NotBlank @Size(max = 253) String host,
      @NotNull Stage stage) {}

  /** Says of a stage that it is reached, where no platform and no tool tells. */
  @PostMapping("/done")
  void done(@Valid @RequestBody DoneByHand d, @AuthenticationPrincipal SignedIn who) {
    work.done(reach.all(d.sections(), who), d.host(), d.stage(), who);
  }

  /** A host whose launches are to be tested. */
  record TestThese(
      @NotEmpty @Size(max = 5000) List<@NotNull UUID> sections,
      @NotBlank @Size(max = 253) String host) {}

  /**
   * @param testing sections whose launches are tested now
   * @param notYet sections where somebody has to do something first
   */
  record Testing(int testing, int notYet) {}

  /** Tests launches as an instructor and as a student, where all that has to be done is done. */
  @PostMapping("/tests")
  Testing test(@Valid @RequestBody TestThese t, @AuthenticationPrincipal SignedIn who) {
    TestRounds.Begun b = rounds.begin(t.host(), reach.all(t.sections(), who), who);
    return new Testing(b.testing(), b.notYet());
  }
}
