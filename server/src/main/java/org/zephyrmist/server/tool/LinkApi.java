package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.SECTION;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.tool.BasicLaunch.Role;
import org.zephyrmist.core.tool.LaunchAnswer;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.tool.LinksOfSection.SectionLink;
import org.zephyrmist.server.tool.ToolSections.ToolSection;
import org.zephyrmist.server.web.Refusal;

/** One tool link of a section: found, opened, tested. */
@RestController
@RequestMapping(
    path = "/api/tools/sections/{section}/links",
    produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class LinkApi {
  private final LinksOfSection links;
  private final ToolSections sections;
  private final ToolHosts hosts;
  private final ToolReach reach;
  private final LaunchTests tests;
  private final Events events;

  LinkApi(
      LinksOfSection links,
      ToolSections sections,
      ToolHosts hosts,
      ToolReach reach,
      LaunchTests tests,
      Events events) {
    this.links = links;
    this.sections = sections;
    this.hosts = hosts;
    this.reach = reach;
    this.tests = tests;
    this.events = events;
  }

  /**
   * A link.
   *
   * @param item what the platform calls it
   * @param leads its launch address
   * @param at where it is opened in the shell; absent where the platform has no addresses
   */
  record LinkView(@NotNull String item, @NotNull String title, @NotNull String leads, String at) {}

  @GetMapping
  List<LinkView> list(
      @PathVariable UUID section,
      @RequestParam String host,
      @AuthenticationPrincipal SignedIn who) {
    return links.of(reached(section, who), host).stream()
        .map(l -> new LinkView(l.item(), l.title(), l.link().address(), l.at().orElse(null)))
        .toList();
  }

  private ToolSection reached(UUID section, SignedIn who) {
    return sections.where(SECTION.ID.in(reach.all(List.of(section), who))).get(0);
  }

  record TestThisLink(
      @NotBlank @Size(max = 253) String host, @NotBlank @Size(max = 200) String item) {}

  /**
   * @param said the tool's own words, if it did not let anybody in
   */
  record LinkTest(
      @NotNull Role role,
      @NotNull LaunchAnswer.Outcome outcome,
      @NotNull String said,
      int millis) {}

  /** Launches it now, as an instructor and as a student, where all that has to be done is done. */
  @PostMapping("/test")
  List<LinkTest> test(
      @PathVariable UUID section,
      @Valid @RequestBody TestThisLink t,
      @AuthenticationPrincipal SignedIn who) {
    ToolSection s = reached(section, who);
    SectionLink link =
        links.of(s, t.host()).stream()
            .filter(l -> l.item().equals(t.item()))
            .findFirst()
            .orElseThrow(
                () ->
                    Refusal.bad(
                        "This section has no such link of " + t.host() + ".",
                        "Look at its links again."));
    ToolHosts.Cell cell = testable(s, t.host());
    events.add(who.id(), "tests launches of", t.host(), s.code() + ": " + link.title(), "/tools");
    return tests.now(cell, link.link(), who.id()).stream()
        .map(
            d ->
                new LinkTest(
                    d.role(),
                    d.answered().answer().outcome(),
                    d.answered().answer().said(),
                    d.answered().millis()))
        .toList();
  }

  private ToolHosts.Cell testable(ToolSection s, String host) {
    Optional<ToolHosts.Cell> cell =
        hosts.of(List.of(s)).cells().stream().filter(c -> c.host().equals(host)).findFirst();
    if (cell.filter(c -> c.secret() == ToolHosts.Secret.NOT_KEPT).isPresent()) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "Its shell has the secret before, which is not kept here: what a launch meets cannot be told.",
          "Write the new one into the shell, then test.");
    }
    return cell.filter(TestRounds::testable)
        .orElseThrow(
            () ->
                new Refusal(
                    HttpStatus.CONFLICT,
                    "Something is to be done before it can be tested.",
                    "The section says what, and whose it is."));
  }
}
