package org.zephyrmist.server.coverage;

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
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.coverage.SectionFilter;
import org.zephyrmist.server.people.SignedIn;

/** Section sets: kept, named, taken in hand again. */
@RestController
@RequestMapping(path = "/api/coverage/sets", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class SectionSetApi {
  private final SectionSets sets;

  SectionSetApi(SectionSets sets) {
    this.sets = sets;
  }

  /** What is said of the sections; what is absent is no matter. */
  record SaidOfSections(
      @Size(max = 200) String text,
      @Size(max = 200) String course,
      @Size(max = 200) String campus,
      @Size(max = 200) String instructor) {
    static SaidOfSections of(SectionFilter f) {
      return new SaidOfSections(f.text(), f.course(), f.campus(), f.instructor());
    }

    SectionFilter filter() {
      return new SectionFilter(given(text), given(course), given(campus), given(instructor));
    }

    private static String given(String s) {
      return Optional.ofNullable(s).orElse("");
    }
  }

  /**
   * A saved choice of sections.
   *
   * @param filter absent for one by hand
   * @param sections of the term, within reach
   * @param rules coverage rules that stand on it
   * @param mine whether one may change it
   */
  record SectionSet(
      @NotNull UUID id,
      @NotNull String name,
      SaidOfSections filter,
      int sections,
      int rules,
      @NotNull String madeBy,
      boolean mine) {}

  /** Either sections or a filter. */
  record SetToKeep(
      @NotBlank @Size(max = 100) String name,
      @Size(max = 10_000) List<@NotNull UUID> sections,
      @Valid SaidOfSections filter) {
    SectionSets.Wanted wanted() {
      return new SectionSets.Wanted(
          name,
          Optional.ofNullable(sections),
          Optional.ofNullable(filter).map(SaidOfSections::filter));
    }
  }

  record KeptSet(@NotNull UUID id) {}

  @GetMapping
  List<SectionSet> list(@RequestParam UUID term, @AuthenticationPrincipal SignedIn who) {
    return sets.list(term, who);
  }

  @GetMapping("/{set}/sections")
  List<UUID> sections(
      @PathVariable UUID set, @RequestParam UUID term, @AuthenticationPrincipal SignedIn who) {
    return sets.sections(set, term, who);
  }

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  KeptSet keep(@Valid @RequestBody SetToKeep s, @AuthenticationPrincipal SignedIn who) {
    return new KeptSet(sets.keep(s.wanted(), who));
  }

  @PutMapping("/{set}")
  void change(
      @PathVariable UUID set,
      @Valid @RequestBody SetToKeep s,
      @AuthenticationPrincipal SignedIn who) {
    sets.change(set, s.wanted(), who);
  }

  @DeleteMapping("/{set}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void drop(@PathVariable UUID set, @AuthenticationPrincipal SignedIn who) {
    sets.drop(set, who);
  }
}
