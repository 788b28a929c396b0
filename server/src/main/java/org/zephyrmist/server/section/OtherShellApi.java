package org.zephyrmist.server.section;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Locale;
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
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;

/** Practice and shared shells: targets that are no sections. */
@RestController
@RequestMapping(path = "/api/shells", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class OtherShellApi {
  private final OtherShells shells;
  private final Events events;

  OtherShellApi(OtherShells shells, Events events) {
    this.shells = shells;
    this.events = events;
  }

  /**
   * A shell that is no section's.
   *
   * @param address where it is seen; absent if its platform has none
   */
  record OtherShell(
      @NotNull UUID section,
      @NotNull String title,
      @NotNull OtherShells.Purpose purpose,
      @NotNull String course,
      @NotNull String platform,
      String address) {}

  /** A shell that belongs to nothing yet. */
  record LooseShell(@NotNull String id, @NotNull String title) {}

  record NewOther(
      @NotNull UUID platform,
      @NotBlank @Size(max = 200) String shell,
      @NotNull OtherShells.Purpose purpose,
      @NotNull UUID course) {}

  record TakenShell(@NotNull UUID section) {}

  @GetMapping
  List<OtherShell> all(@AuthenticationPrincipal SignedIn who) {
    return shells.all(who).stream()
        .map(
            o ->
                new OtherShell(
                    o.section(), o.title(), o.purpose(), o.course(), o.platform(), o.address()))
        .toList();
  }

  /** Shells of a platform that belong to no section. */
  @GetMapping("/loose/{platform}")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  List<LooseShell> loose(
      @PathVariable UUID platform, @RequestParam(defaultValue = "") String find) {
    return shells.loose(platform, find).stream()
        .map(s -> new LooseShell(s.id(), s.title()))
        .toList();
  }

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  TakenShell take(@Valid @RequestBody NewOther n, @AuthenticationPrincipal SignedIn who) {
    UUID section = shells.take(n.platform(), n.shell(), n.purpose(), n.course(), who);
    events.add(
        who.id(), "took a shell for " + n.purpose().name().toLowerCase(Locale.ROOT), n.shell(), "");
    return new TakenShell(section);
  }
}
