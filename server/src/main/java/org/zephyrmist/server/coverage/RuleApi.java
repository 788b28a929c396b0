package org.zephyrmist.server.coverage;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
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
import org.zephyrmist.core.coverage.Expectation;
import org.zephyrmist.server.people.SignedIn;

/** Coverage rules: which sections ought to hold which master, at which version. */
@RestController
@RequestMapping(path = "/api/coverage/rules", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
class RuleApi {
  private final Rules rules;

  RuleApi(Rules rules) {
    this.rules = rules;
  }

  /**
   * @param course its code, for a rule about a course
   * @param set its name, for a rule about a section set
   * @param program its name, for a rule that reaches no further
   * @param pinned number of the version; absent: the newest
   * @param sections of the term that it is about, within reach
   * @param yours whether it reaches no further than who asks, and may be changed by them
   */
  record CoverageRule(
      @NotNull UUID id,
      @NotNull UUID master,
      @NotNull String masterCode,
      @NotNull String masterTitle,
      @NotNull Expectation.Scope scope,
      String course,
      String set,
      String program,
      Integer pinned,
      int sections,
      boolean yours) {}

  /**
   * Neither course nor set: every section.
   *
   * @param program beyond which it does not reach; absent: the only one of who makes it, or the
   *     whole college for those who reach all of it
   */
  record NewRule(
      @NotNull UUID master, UUID program, UUID course, UUID set, @Min(1) Integer pinned) {
    Rules.Wanted wanted() {
      return new Rules.Wanted(
          master,
          Optional.ofNullable(program),
          Optional.ofNullable(course),
          Optional.ofNullable(set),
          Optional.ofNullable(pinned));
    }
  }

  record MadeRule(@NotNull UUID id) {}

  record Pin(@Min(1) Integer pinned) {}

  @GetMapping
  List<CoverageRule> list(@RequestParam UUID term, @AuthenticationPrincipal SignedIn who) {
    return rules.list(term, who);
  }

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  MadeRule add(@Valid @RequestBody NewRule n, @AuthenticationPrincipal SignedIn who) {
    return new MadeRule(rules.add(n.wanted(), who));
  }

  @PutMapping("/{rule}")
  void pin(
      @PathVariable UUID rule, @Valid @RequestBody Pin p, @AuthenticationPrincipal SignedIn who) {
    rules.pin(rule, p.pinned(), who);
  }

  @DeleteMapping("/{rule}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void end(@PathVariable UUID rule, @AuthenticationPrincipal SignedIn who) {
    rules.end(rule, who);
  }
}
