package org.zephyrmist.server.tool;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.server.people.SignedIn;

/** Hosts that somebody asked to have approved. */
@RestController
@RequestMapping(path = "/api/tools/requests", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class RequestApi {
  private final ToolRequests requests;

  RequestApi(ToolRequests requests) {
    this.requests = requests;
  }

  /**
   * @param approved absent while nobody has decided
   */
  record RequestView(
      @NotNull UUID id,
      @NotNull String host,
      @NotNull String reason,
      @NotNull String askedBy,
      @NotNull OffsetDateTime askedAt,
      Boolean approved,
      String decidedBy,
      OffsetDateTime decidedAt,
      @NotNull String conditions) {}

  record NewRequest(
      @NotBlank @Size(max = 253) String host, @NotBlank @Size(max = 2000) String reason) {}

  record MadeRequest(@NotNull UUID id) {}

  record Decision(boolean approved, @NotNull @Size(max = 2000) String conditions) {}

  /** Those that nobody has decided first. */
  @GetMapping
  List<RequestView> list() {
    return requests.list();
  }

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  MadeRequest ask(@Valid @RequestBody NewRequest n, @AuthenticationPrincipal SignedIn who) {
    return new MadeRequest(requests.ask(n.host(), n.reason(), who));
  }

  /** What waited for it works from then on, and nothing has to be entered again. */
  @PutMapping("/{request}")
  @PreAuthorize("hasRole('ADMINISTRATOR')")
  void decide(
      @PathVariable UUID request,
      @Valid @RequestBody Decision d,
      @AuthenticationPrincipal SignedIn who) {
    requests.decide(request, d.approved(), d.conditions(), who);
  }
}
