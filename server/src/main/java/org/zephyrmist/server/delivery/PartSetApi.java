package org.zephyrmist.server.delivery;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.people.SignedIn;

/** Parts by their kinds and titles under a name, for deliveries of every master. */
@RestController
@RequestMapping(path = "/api/deliveries/part-sets", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class PartSetApi {
  private final PartSets sets;

  PartSetApi(PartSets sets) {
    this.sets = sets;
  }

  /**
   * @param titles words with which a word of a title begins
   * @param mine whether who asks may change it
   */
  record NamedParts(
      @NotNull UUID id,
      @NotNull String name,
      @NotNull List<Kind> kinds,
      @NotNull List<String> titles,
      @NotNull String madeBy,
      boolean mine) {}

  record PartsToKeep(
      @NotBlank @Size(max = 100) String name,
      @NotNull @Size(max = 40) List<@NotNull Kind> kinds,
      @NotNull @Size(max = 50) List<@NotBlank @Size(max = 100) String> titles) {
    PartSets.Wanted wanted() {
      return new PartSets.Wanted(name, kinds, titles);
    }
  }

  record KeptParts(@NotNull UUID id) {}

  /** All sets, by name. */
  @GetMapping
  List<NamedParts> list(@AuthenticationPrincipal SignedIn who) {
    return sets.all(who);
  }

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  KeptParts keep(@Valid @RequestBody PartsToKeep w, @AuthenticationPrincipal SignedIn who) {
    return new KeptParts(sets.keep(w.wanted(), who));
  }

  /** Another name, other kinds, other titles. */
  @PutMapping("/{partSet}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void change(
      @PathVariable UUID partSet,
      @Valid @RequestBody PartsToKeep w,
      @AuthenticationPrincipal SignedIn who) {
    sets.change(partSet, w.wanted(), who);
  }

  @DeleteMapping("/{partSet}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void drop(@PathVariable UUID partSet, @AuthenticationPrincipal SignedIn who) {
    sets.drop(partSet, who);
  }
}
