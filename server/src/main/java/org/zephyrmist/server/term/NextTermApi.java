package org.zephyrmist.server.term;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.term.Onward;
import org.zephyrmist.core.term.Successors;
import org.zephyrmist.core.term.TermSection;
import org.zephyrmist.server.content.Previews;
import org.zephyrmist.server.delivery.RecipeOrders;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.section.Instructors;
import org.zephyrmist.server.term.NextTerms.Terms;

/** One term brought into the next: looked at, changed, brought. */
@RestController
@RequestMapping(path = "/api/coverage/next-term", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'ADMINISTRATOR')")
class NextTermApi {
  private final NextTerms terms;
  private final NextTermEdits edits;
  private final BringForward bring;
  private final Instructors instructors;

  NextTermApi(NextTerms terms, NextTermEdits edits, BringForward bring, Instructors instructors) {
    this.terms = terms;
    this.edits = edits;
    this.bring = bring;
    this.instructors = instructors;
  }

  /** A section of either term. */
  record SectionOfTerm(
      @NotNull UUID id,
      @NotNull String code,
      @NotNull String course,
      @NotNull String campus,
      @NotNull String instructors) {}

  /**
   * @param to absent: nothing follows it
   * @param why absent with {@code to}
   */
  record SectionFollowed(@NotNull SectionOfTerm from, SectionOfTerm to, Successors.Why why) {}

  /**
   * @param sections that get it
   * @param open those that do not hold it yet
   * @param recipes by which it can come
   * @param recipe by which it comes; absent: with the usual choices
   */
  record MasterComing(
      @NotNull UUID master,
      @NotNull String code,
      @NotNull String title,
      int number,
      int newest,
      boolean pinned,
      boolean leftOut,
      int sections,
      int open,
      @NotNull List<RecipeOfMaster> recipes,
      UUID recipe) {}

  record RecipeOfMaster(@NotNull UUID id, @NotNull String name) {}

  /**
   * @param sections that have made it their own
   * @param filled of these, how many did nothing but fill its blanks
   * @param onward what becomes of it; absent: the master's text comes, and nobody has said so
   * @param into sections of the next term that are still to get its master, and that the same
   *     person teaches
   */
  record TextOfSections(
      @NotNull UUID master,
      @NotNull String code,
      @NotNull String item,
      @NotNull String title,
      boolean starter,
      int sections,
      int filled,
      int into,
      Onward onward) {}

  /**
   * Sections that follow such as went by the calendar of a part.
   *
   * @param there whether the next term has a calendar of that name; then they go by it
   */
  record PartOfNextTerm(@NotNull String name, boolean there, int sections) {}

  /**
   * @param fresh sections of the next term that follow nothing
   * @param open sections that something is brought to
   * @param entered whether the next term has a calendar of its own
   * @param busy codes of sections that are left to another delivery, which is planned or on its way
   */
  record NextTermProposal(
      @NotNull List<SectionFollowed> pairs,
      @NotNull List<SectionOfTerm> fresh,
      @NotNull List<MasterComing> masters,
      @NotNull List<TextOfSections> texts,
      @NotNull List<PartOfNextTerm> parts,
      boolean entered,
      @NotNull List<String> busy,
      int open) {}

  @GetMapping
  NextTermProposal of(
      @RequestParam UUID from, @RequestParam UUID to, @AuthenticationPrincipal SignedIn who) {
    NextTerms.Proposal p = terms.of(new Terms(from, to), who);
    Map<UUID, String> names = instructors.of(p.sections().keySet());
    Map<String, Successors.Pair> pairs = new HashMap<>();
    p.paired().pairs().forEach(x -> pairs.put(x.from(), x));
    Set<String> followed = new HashSet<>(pairs.keySet());
    followed.addAll(p.paired().without());
    return new NextTermProposal(
        p.sections().values().stream()
            .filter(s -> followed.contains(s.id()))
            .map(
                s -> {
                  Optional<Successors.Pair> x = Optional.ofNullable(pairs.get(s.id()));
                  return new SectionFollowed(
                      section(s, names),
                      x.map(y -> section(p.sections().get(UUID.fromString(y.to())), names))
                          .orElse(null),
                      x.map(Successors.Pair::why).orElse(null));
                })
            .toList(),
        p.paired().fresh().stream()
            .map(s -> section(p.sections().get(UUID.fromString(s)), names))
            .toList(),
        p.masters().stream()
            .map(
                m ->
                    new MasterComing(
                        m.master(),
                        m.code(),
                        m.title(),
                        m.number(),
                        m.newest(),
                        m.pinned(),
                        m.leftOut(),
                        m.sections().size(),
                        m.open().size(),
                        m.recipes().stream()
                            .map(r -> new RecipeOfMaster(r.id(), r.name()))
                            .toList(),
                        m.recipe().map(RecipeOrders.Named::id).orElse(null)))
            .toList(),
        p.texts().stream()
            .map(
                x ->
                    new TextOfSections(
                        x.master(),
                        x.code(),
                        x.item().value(),
                        x.title(),
                        x.starter(),
                        x.sections().size(),
                        x.filled(),
                        x.into().size(),
                        x.onward().orElse(null)))
            .toList(),
        p.parts().stream()
            .map(x -> new PartOfNextTerm(x.name(), x.next().isPresent(), x.sections().size()))
            .toList(),
        p.entered(),
        p.busy().stream().map(s -> p.sections().get(s).code()).sorted().toList(),
        p.open().size());
  }

  private static SectionOfTerm section(TermSection s, Map<UUID, String> names) {
    UUID id = UUID.fromString(s.id());
    return new SectionOfTerm(id, s.code(), s.course(), s.campus(), names.getOrDefault(id, ""));
  }

  /**
   * @param to absent: nothing follows it
   * @param propose whether it is proposed again, whatever was said
   */
  record PairedByHand(@NotNull UUID section, UUID to, boolean propose) {}

  @PutMapping("/pairs")
  void pair(
      @RequestParam UUID from,
      @RequestParam UUID to,
      @Valid @RequestBody PairedByHand p,
      @AuthenticationPrincipal SignedIn who) {
    Terms t = new Terms(from, to);
    if (p.propose()) {
      edits.propose(t, p.section(), who);
    } else {
      edits.pair(t, p.section(), Optional.ofNullable(p.to()), who);
    }
  }

  /**
   * @param pinned absent: the newest
   * @param recipe that was chosen
   * @param noRecipe whether it comes with the usual choices, whatever was used before
   */
  record MasterSaid(
      @NotNull UUID master,
      @Min(1) Integer pinned,
      boolean leftOut,
      UUID recipe,
      Boolean noRecipe) {}

  @PutMapping("/masters")
  void master(
      @RequestParam UUID from,
      @RequestParam UUID to,
      @Valid @RequestBody MasterSaid m,
      @AuthenticationPrincipal SignedIn who) {
    KeptTerms.Master how =
        new KeptTerms.Master(
            Optional.ofNullable(m.pinned()),
            m.leftOut(),
            Optional.ofNullable(m.recipe()),
            Boolean.TRUE.equals(m.noRecipe()) && m.recipe() == null);
    edits.master(new Terms(from, to), m.master(), how, who);
  }

  record TextSaid(
      @NotNull UUID master,
      @NotNull @Size(min = 1, max = 80) String item,
      @NotNull Onward onward) {}

  @PutMapping("/texts")
  void text(
      @RequestParam UUID from,
      @RequestParam UUID to,
      @Valid @RequestBody TextSaid x,
      @AuthenticationPrincipal SignedIn who) {
    edits.text(new Terms(from, to), x.master(), Previews.key(x.item()), x.onward(), who);
  }

  record BroughtForward(@NotNull List<UUID> deliveries) {}

  /** Plans it: ordinary deliveries, to be looked at and confirmed. */
  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  BroughtForward begin(
      @RequestParam UUID from, @RequestParam UUID to, @AuthenticationPrincipal SignedIn who) {
    return new BroughtForward(bring.begin(new Terms(from, to), who));
  }
}
