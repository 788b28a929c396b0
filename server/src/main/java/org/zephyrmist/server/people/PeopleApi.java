package org.zephyrmist.server.people;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Email;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The person who is signed in, and the first who may. */
@RestController
@RequestMapping("/api")
class PeopleApi {
  private final People people;
  private final Events events;
  private final Programs programs;
  private final Reach reach;
  private final ObjectProvider<Making> making;

  PeopleApi(
      People people, Events events, Programs programs, Reach reach, ObjectProvider<Making> making) {
    this.programs = programs;
    this.reach = reach;
    this.making = making;
    this.people = people;
    this.events = events;
  }

  /**
   * @param programs that a coordinator or designer reaches; nobody else's are named
   * @param wholeCollege whether there is none beyond these
   */
  record Me(
      @NotNull UUID id,
      @NotNull String name,
      @NotNull String email,
      @NotNull Role role,
      @NotNull List<CollegePeopleApi.ProgramView> programs,
      boolean wholeCollege) {}

  record NewPerson(
      @NotBlank @Size(max = 200) String name,
      @NotBlank @Email @Size(max = 254) String email,
      @NotNull Role role,
      @NotBlank @Size(min = 10, max = 72) String password,
      Set<UUID> programs) {}

  /**
   * @param making how far data are that come by themselves; none when all are there
   */
  record Ready(@NotNull boolean needsFirstPerson, Making.Far making) {}

  @GetMapping("/ready")
  Ready ready() {
    Making.Far far = making.stream().flatMap(m -> m.far().stream()).findFirst().orElse(null);
    return new Ready(people.nobody(), far);
  }

  @GetMapping("/me")
  Me me(@AuthenticationPrincipal SignedIn who) {
    return new Me(
        who.id(),
        who.name(),
        who.getUsername(),
        who.role(),
        programs.of(who.id()),
        reach.everything(who));
  }

  /** On an empty installation the first person becomes administrator. */
  @PostMapping("/first-person")
  @ResponseStatus(HttpStatus.CREATED)
  void first(@Valid @RequestBody NewPerson p) {
    UUID id = people.first(p.email(), p.name(), p.password());
    events.add(id, "first person", p.email(), "");
  }
}
