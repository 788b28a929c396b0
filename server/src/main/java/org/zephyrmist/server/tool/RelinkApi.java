package org.zephyrmist.server.tool;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.server.people.SignedIn;

/** Relink rules: tried out on all links, kept in their order, applied at each delivery. */
@RestController
@RequestMapping(path = "/api/tools/rules", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class RelinkApi {
  private final RelinkEdits edits;
  private final RelinkTrial trial;
  private final ProposedRules proposed;
  private final RelinkedDrafts drafts;

  RelinkApi(RelinkEdits edits, RelinkTrial trial, ProposedRules proposed, RelinkedDrafts drafts) {
    this.drafts = drafts;
    this.proposed = proposed;
    this.edits = edits;
    this.trial = trial;
  }

  /**
   * A rule.
   *
   * @param from addresses that it is about, with parts as {name} and {*rest}
   * @param to what they become
   * @param parameters by name, what is sent along from then on; empty: no longer
   * @param masters that it is limited to; none: all, which is an administrator's to say
   * @param terms that it is limited to; none: all
   * @param campuses by sourced id, that it is limited to; none: all
   */
  record RelinkEntry(
      @NotBlank @Size(max = 500) String from,
      @NotBlank @Size(max = 500) String to,
      @NotNull @Size(max = 20)
          Map<@NotBlank @Size(max = 100) String, @NotNull @Size(max = 400) String> parameters,
      @NotNull @Size(max = 100) Set<@NotNull UUID> masters,
      @NotNull @Size(max = 20) Set<@NotNull UUID> terms,
      @NotNull @Size(max = 50) Set<@NotBlank String> campuses,
      LocalDate fromDay,
      LocalDate untilDay) {}

  record RelinkView(@NotNull UUID id, @NotNull RelinkEntry rule, @NotNull String by) {}

  record MadeRelink(@NotNull UUID id) {}

  /**
   * A link before and after.
   *
   * @param leadsOn the rule that would change the result once more, so that nothing is done; absent
   *     if none would
   */
  record TriedLink(
      @NotNull String section,
      @NotNull String title,
      @NotNull String before,
      @NotNull String after,
      String leadsOn) {}

  /**
   * What a rule would do in a term.
   *
   * @param links of all sections that were looked at
   * @param changed of these, how many would be written otherwise
   * @param leadsOn how many would lead on, and stay
   * @param sections in which links would change
   * @param some the first of them
   */
  record RelinkTried(
      int links, int changed, int leadsOn, int sections, @NotNull List<TriedLink> some) {}

  @GetMapping
  List<RelinkView> list(@AuthenticationPrincipal SignedIn who) {
    return edits.list(who);
  }

  /**
   * A rule that an edition proposes.
   *
   * @param cartridge its title
   * @param edition its number
   * @param links of the edition that moved so
   */
  record ProposedRelink(
      @NotNull String cartridge,
      int edition,
      @NotNull String from,
      @NotNull String to,
      int links) {}

  /** Rules for launch addresses that moved between an edition and the one before it. */
  @GetMapping("/proposed")
  List<ProposedRelink> proposed() {
    return proposed.all().stream()
        .map(
            p ->
                new ProposedRelink(
                    p.cartridge(),
                    p.edition(),
                    p.rule().from().text(),
                    p.rule().to().text(),
                    p.rule().moves()))
        .toList();
  }

  /** Tries a rule on all links of a term, after the rules that are kept; nothing is changed. */
  @PostMapping("/try")
  RelinkTried tryOut(
      @RequestParam UUID term,
      @Valid @RequestBody RelinkEntry e,
      @AuthenticationPrincipal SignedIn who) {
    return trial.of(term, edits.rule(UUID.randomUUID(), e), who);
  }

  @PostMapping
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  @ResponseStatus(HttpStatus.CREATED)
  MadeRelink add(@Valid @RequestBody RelinkEntry e, @AuthenticationPrincipal SignedIn who) {
    return new MadeRelink(edits.add(e, who));
  }

  /** Lets a rule count before the one that stands before it now. */
  @PostMapping("/{relink}/sooner")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void sooner(@PathVariable UUID relink, @AuthenticationPrincipal SignedIn who) {
    edits.sooner(relink, who);
  }

  record OneMaster(@NotNull UUID master) {}

  /**
   * @param items of the draft whose links were written otherwise
   */
  record RewrittenDraft(int items) {}

  /** Writes the links of a draft as a rule says, as one step that can be undone. */
  @PostMapping("/{relink}/draft")
  RewrittenDraft draft(
      @PathVariable UUID relink,
      @Valid @RequestBody OneMaster m,
      @AuthenticationPrincipal SignedIn who) {
    return new RewrittenDraft(drafts.write(edits.known(relink), m.master(), who));
  }

  /** Links that were delivered by it stay as they are until the next delivery. */
  @DeleteMapping("/{relink}")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void end(@PathVariable UUID relink, @AuthenticationPrincipal SignedIn who) {
    edits.end(relink, who);
  }
}
