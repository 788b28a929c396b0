package org.zephyrmist.server.people;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Email;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.server.web.Refusal;

/** The person who is signed in, and people who may. */
@RestController
@RequestMapping("/api")
class PeopleApi {
  private final People people;
  private final Programs programs;
  private final Events events;
  private final Tokens tokens;

  PeopleApi(People people, Programs programs, Events events, Tokens tokens) {
    this.tokens = tokens;
    this.people = people;
    this.programs = programs;
    this.events = events;
  }

  record Me(@NotNull UUID id, @NotNull String name, @NotNull String email, @NotNull Role role) {}

  record NewPerson(
      @NotBlank @Size(max = 200) String name,
      @NotBlank @Email String email,
      @NotNull Role role,
      @NotBlank @Size(min = 10, max = 72) String password) {}

  record Ready(@NotNull boolean needsFirstPerson) {}

  @GetMapping("/ready")
  Ready ready() {
    return new Ready(people.nobody());
  }

  @GetMapping("/me")
  Me me(@AuthenticationPrincipal SignedIn who) {
    return new Me(who.id(), who.name(), who.getUsername(), who.role());
  }

  /** On an empty installation the first person becomes administrator. */
  @PostMapping("/first-person")
  @ResponseStatus(HttpStatus.CREATED)
  void first(@Valid @RequestBody NewPerson p) {
    if (!people.nobody()) {
      throw new Refusal(HttpStatus.CONFLICT, "The first person is there already.", "Sign in.");
    }
    UUID id = people.admit(p.email(), p.name(), Role.ADMINISTRATOR, p.password());
    events.add(id, "first person", p.email(), "");
  }

  /** A new person; coordinators and designers reach every program there is. */
  @PostMapping("/people")
  @PreAuthorize("hasRole('ADMINISTRATOR')")
  @ResponseStatus(HttpStatus.CREATED)
  void admit(@Valid @RequestBody NewPerson p, @AuthenticationPrincipal SignedIn who) {
    UUID id = people.admit(p.email(), p.name(), p.role(), p.password());
    tokens.endAll(id);
    if (p.role() == Role.COORDINATOR || p.role() == Role.DESIGNER) {
      programs.reachAll(id);
    }
    events.add(who.id(), "admitted", p.email(), p.role().name());
  }
}
