package org.zephyrmist.server.tool;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.tool.Connection;
import org.zephyrmist.core.tool.DateMode;
import org.zephyrmist.core.tool.Pairing;
import org.zephyrmist.core.tool.Scope;
import org.zephyrmist.core.tool.Stage;
import org.zephyrmist.core.tool.Way;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.people.SignedIn;

/** Connections: administrators enter them; secrets never come back. Coordinators apply them. */
@RestController
@RequestMapping(path = "/api/tools/connections", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class ConnectionApi {
  private final ToolConnections connections;
  private final ConnectionEdits edits;
  private final ToolWork work;
  private final TryLaunch tries;
  private final ToolReach reach;

  ConnectionApi(
      ToolConnections connections,
      ConnectionEdits edits,
      ToolWork work,
      TryLaunch tries,
      ToolReach reach) {
    this.connections = connections;
    this.edits = edits;
    this.work = work;
    this.tries = tries;
    this.reach = reach;
  }

  /**
   * A connection.
   *
   * @param scopeOf sourced id of the campus, code of the course, or sourced id of the section;
   *     empty for the college
   * @param words what the tool says when it is tied, with {course} where it names its course
   * @param key for administrators alone
   * @param secret whether there is one
   * @param entered whether there are credentials that can be written into shells
   * @param registration for administrators alone
   */
  record ConnectionView(
      @NotNull UUID id,
      @NotNull String name,
      @NotNull Set<String> hosts,
      @NotNull Way way,
      @NotNull Scope.Level level,
      @NotNull String scopeOf,
      @NotNull List<Stage> stages,
      @NotNull Pairing pairing,
      @NotNull String words,
      int waitMinutes,
      boolean sendsName,
      boolean sendsMail,
      boolean grades,
      @NotNull DateMode dates,
      @NotNull String owner,
      String key,
      boolean secret,
      boolean entered,
      boolean approved,
      LocalDate expires,
      LocalDate bothUntil,
      @NotNull Set<UUID> terms,
      EnteredRegistration registration,
      @NotNull String course,
      @NotNull Set<String> mastersCourses) {}

  static ConnectionView view(KnownConnection k, SignedIn who) {
    var c = k.connection();
    return new ConnectionView(
        UUID.fromString(c.id()),
        c.name(),
        new TreeSet<>(c.hosts()),
        c.way(),
        c.scope().level(),
        c.scope().of(),
        c.stages(),
        c.pairing(),
        k.words().text(),
        (int) k.takes().toMinutes(),
        k.privacy().name(),
        k.privacy().mail(),
        k.grades(),
        k.dates(),
        k.owner(),
        who.role() == Role.ADMINISTRATOR ? k.key() : null,
        k.secret(),
        c.credentials() == Connection.Entered.FOR_SHELLS,
        c.approved(),
        k.expires().orElse(null),
        k.bothUntil().orElse(null),
        c.terms().stream().map(UUID::fromString).collect(java.util.stream.Collectors.toSet()),
        k.registration()
            .filter(r -> who.role() == Role.ADMINISTRATOR)
            .map(r -> new EnteredRegistration(r.deployment(), r.login(), r.launches(), r.keySet()))
            .orElse(null),
        k.course().text(),
        new TreeSet<>(k.masters()));
  }

  record MadeConnection(@NotNull UUID id) {}

  @PostMapping
  @PreAuthorize("hasRole('ADMINISTRATOR')")
  @ResponseStatus(HttpStatus.CREATED)
  MadeConnection add(@Valid @RequestBody ConnectionEntry e, @AuthenticationPrincipal SignedIn who) {
    return new MadeConnection(edits.add(e, who));
  }

  /** Another secret is written into all shells that have the one before; both count until then. */
  @PutMapping("/{id}")
  @PreAuthorize("hasRole('ADMINISTRATOR')")
  void change(
      @PathVariable UUID id,
      @Valid @RequestBody ConnectionEntry e,
      @AuthenticationPrincipal SignedIn who) {
    edits.change(id, e, who);
  }

  @DeleteMapping("/{id}")
  @PreAuthorize("hasRole('ADMINISTRATOR')")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void end(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    edits.end(id, who);
  }

  /**
   * A launch to be tried.
   *
   * @param connection whose secret is taken where none is sent; absent: none
   * @param section whose values are filled into key and secret; absent: none are
   */
  record TriedLaunch(
      UUID connection,
      UUID section,
      @NotBlank @Size(max = 253) String host,
      @NotNull Way way,
      @NotNull @Size(max = 400) String key,
      @Size(max = 400) String secret,
      @Valid EnteredRegistration registration) {
    @Override
    public String toString() {
      return "TriedLaunch[" + host + "]";
    }
  }

  /**
   * What the tool made of it.
   *
   * @param said its own words, if it did not let us in
   * @param address that was launched
   */
  record TriedAnswer(boolean opened, @NotNull String said, int millis, @NotNull String address) {}

  /** One real launch, in a course of its own that no section has; nothing is saved. */
  @PostMapping("/try")
  @PreAuthorize("hasRole('ADMINISTRATOR')")
  TriedAnswer tryOne(@Valid @RequestBody TriedLaunch t, @AuthenticationPrincipal SignedIn who) {
    return tries.launch(t, who);
  }

  /**
   * @param really whether it is done, or only said what would be
   */
  record ApplyTo(@NotEmpty @Size(max = 5000) List<@NotNull UUID> sections, boolean really) {}

  /**
   * @param byHand sections whose platform has no interface: somebody has to enter them there
   */
  record AppliedTo(int sections, int links, @NotNull List<UUID> byHand) {}

  /** Writes key and secret into the shells of sections; nothing else of their links changes. */
  @PostMapping("/{id}/apply")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  AppliedTo apply(
      @PathVariable UUID id, @Valid @RequestBody ApplyTo a, @AuthenticationPrincipal SignedIn who) {
    ToolWork.Applied done =
        work.apply(connections.get(id), reach.all(a.sections(), who), a.really(), who);
    return new AppliedTo(done.sections(), done.links(), done.byHand());
  }
}
